/** Forecasting demand and proposing what to buy. */
export { type Forecast, forecastOf, FORECAST_WEEKS, type Method, type WeekForecast } from './forecast.js';
export { dayOfWeek, daysBetween, readWeek, weekOfDate, type WeekNumber, weekText } from './iso-week.js';
export { lived, demandWeeks, orderUnits, type Outcome, type Policy, policyFor, type Supply } from './policy.js';
export { demandBetween, type Proposal, proposalFor, type Wanted } from './propose.js';
export { type Series, seriesOf, type WeekUnits } from './series.js';
