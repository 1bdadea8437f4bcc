/** Forecasting demand and proposing what to buy. */
export { backTest, type BackTested, type BackTestRules } from './back-test.js';
export { atBreaks, type BasketLine, filledUp, type Least, withinBudget } from './basket.js';
export { seasonOfClass } from './class-season.js';
export { goesInto, type PartUse } from './echelon.js';
export { coverOf, type Excess, EXCESS_DAYS, excessOf } from './excess.js';
export { type Beside, type Forecast, forecastOf, FORECAST_WEEKS, type Method, type WeekForecast } from './forecast.js';
export { type Evenness, evennessOf, gradesOf, type Worth } from './grades.js';
export { dayOfWeek, daysBetween, readWeek, weekOfDate, type WeekNumber, weekText } from './iso-week.js';
export { liftOf, type Mark } from './marks.js';
export { demandBetween, type Plan, planFor, type ToPlan } from './plan.js';
export { type Course, courseLike, courseOf } from './course.js';
export { lived, orderUnits, type Outcome, type Policy, policyFor, type Supply } from './policy.js';
export { type Ahead, projected, type ProjectedDay, type Projection, type WhatIf } from './project.js';
export { type OrderSteps, type Position, positionOf, type Proposal, proposalBy, proposalFor, type Wanted } from './propose.js';
export { type Series, seriesOf, type WeekUnits } from './series.js';
