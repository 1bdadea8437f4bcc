export class StockFigureDto {
  siteId: number;
  site: string;
  onHand: number;
  held: number;
  reserved: number;
  available: number;
  incoming: number;
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
export class MovementDto {
  id: string;
  at: Date;
  from: string;
  to: string;
  units: number;
  lot: string | null;
  task: string;
  document: string | null;
  who: string | null;
  how: string | null;
  reverses: string | null;
}
