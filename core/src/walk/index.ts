export type { PlanPoint } from './point.js';
export { alongOf, pointOn, segmentLength, walkwaysOf, type Segment, type Walkways } from './plan.js';
export { floorOf, walkingOrder, type AisleBin, type Floor } from './floor.js';
export { aisleBins, faultOfRule, MOST_BINS, type AisleRule, type RuledBin } from './aisle-rule.js';
export type { WalkEdge } from './graph.js';
export { NoWay, type OnFloor, type Route, shortestRoute, type WalkFloor } from './route.js';
export { type FloorWalk, metresOfWalks, metresThrough, walkOn } from './floor-walk.js';
export { WalkMeter } from './walk-meter.js';
