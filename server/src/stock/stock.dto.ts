export class StockFigureDto {
  siteId: number;
  site: string;
  onHand: number;
  held: number;
  reserved: number;
  available: number;
  incoming: number;
  /** Open orders want so many more than are reserved. */
  waiting: number;
  /** Available, with what is on order, less what open orders still wait for. */
  projected: number;
}
export class BinStockDto {
  siteId: number;
  place: string;
  kind: string;
  lot: string | null;
  expires: string | null;
  condition: string;
  units: number;
}
export class ItemStockDto {
  sites: StockFigureDto[];
  bins: BinStockDto[];
}
export class WhyTermDto {
  sign: string;
  term: string;
  units: number;
  documents: string[];
}
export class MovementPageDto {
  rows: MovementDto[];
  /** Ask for rows before this one; null at the beginning of the history. */
  before: string | null;
}
export class MovementDto {
  id: string;
  at: Date;
  from: string;
  to: string;
  units: number;
  lot: string | null;
  condition: string;
  task: string;
  document: string | null;
  who: string | null;
  how: string | null;
  reverses: string | null;
  /** Why, in the words of whoever moved it. */
  reason: string | null;
  /** The act whose picture it has. */
  picture: string | null;
}
