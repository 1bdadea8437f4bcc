export class WeekUnitsDto {
  week: string;
  /** The day that it begins on. */
  monday: string;
  units: number;
}
export class ForecastWeekDto {
  week: string;
  monday: string;
  mean: number;
  sd: number;
}
export class StockDayDto {
  day: string;
  stock: number;
  /** Between these in nine cases of ten. */
  low: number;
  high: number;
}
export class StockAheadDto {
  days: StockDayDto[];
  runsOutOn: string | null;
  missed: number;
  broken: number;
}
export class AheadDocumentDto {
  units: number;
  due: string;
  document: string;
  who: string;
}
export class PriceStepDto {
  from: number;
  price: string;
}
export class ItemSupplierDto {
  code: string;
  name: string;
  isChosen: boolean;
  factor: number;
  packPlural: string;
  currency: string;
  /** Absent for those who may not see costs. */
  price?: string;
  breaks: PriceStepDto[];
  leadDays: number;
  leadSd: number;
  /** Orders that the lead time was measured by; nought where it is what the supplier says. */
  orders: number;
}
/** A proposal that somebody took or put off, and what came of it. */
export class ItemTruthDto {
  on: string;
  says: string;
  proposed: number;
  taken: number;
  /** Until the goods would be here and the next order could be. */
  expected: number;
  /** What was asked for until then; null while that is not over. */
  asked: number | null;
  why: string;
  document: string | null;
  by: string;
}
/** The plan of an item at a site: each figure with what it is made from. Units are base units. */
export class ItemPlanDto {
  sku: string;
  name: string;
  picture: string | null;
  kind: string;
  unit: string;
  unitPlural: string;
  siteId: number;
  site: string;
  today: string;
  method: string;
  plannedOn: string | null;
  weekMean: number;
  weekSd: number;
  /** Share of demand that is to be met from the shelf, and that the plan is expected to meet. */
  service: number;
  fill: number;
  leadDays: number;
  leadSd: number;
  reviewDays: number;
  /** Expected while an order is on its way. */
  expectedMeanwhile: number;
  safety: number;
  point: number | null;
  size: number;
  fixedPoint: number | null;
  fixedUpTo: number | null;
  isFixed: boolean;
  isDropped: boolean;
  onHand: number;
  held: number;
  reserved: number;
  owed: number;
  onOrder: number;
  drafts: number;
  within: number;
  free: number;
  position: number;
  proposed: number;
  because: string;
  factor: number;
  history: WeekUnitsDto[];
  forecast: ForecastWeekDto[];
  arrivals: AheadDocumentDto[];
  promised: AheadDocumentDto[];
  usual: StockAheadDto;
  whatIf: StockAheadDto;
  suppliers: ItemSupplierDto[];
  truths: ItemTruthDto[];
}
