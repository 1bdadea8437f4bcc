export { metresBetween, metresOf, type PlanPoint } from './walk.js';
