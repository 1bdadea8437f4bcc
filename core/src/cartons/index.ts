export { leastCost } from './bound.js';
export {
  type BoxKind,
  type CartonProblem,
  type FilledBox,
  type Good,
  holds,
  type Packing,
  type Placement,
  type Size,
  volumeOf,
} from './problem.js';
export { type BoxPlan, cartonProblem, type CartonToHave, type GoodsToPack, planBoxes } from './plan.js';
export { type Carton, type PackedGoods, rankCartons, type RankedCarton } from './rank.js';
export { CartonSearch } from './search.js';
export { weightSlackG } from './weight.js';
