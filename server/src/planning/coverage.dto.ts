import { SpareGoodsDto } from './planning.dto.js';

/** One field of the map: what a year of it costs, A to C, by how even its weeks are, X to Z. */
export class CoverFieldDto {
  field: string;
  items: number;
  /** Of them, those with nothing free. */
  out: number;
  /** How long what is free lasts, by worth; null where nothing is asked for. */
  weeks: number | null;
  /** Absent for those who may not see costs. */
  yearValue?: string;
  stockValue?: string;
}
export class CoverRowDto {
  sku: string;
  name: string;
  picture: string | null;
  unit: string;
  unitPlural: string;
  weekMean: number;
  weekSd: number;
  method: string;
  free: number;
  onOrder: number;
  point: number | null;
  /** Null: longer than ten years, or nobody asks for it. */
  coverDays: number | null;
  stockValue?: string;
}
export class CoverageDto {
  siteId: number;
  today: string;
  items: number;
  fields: CoverFieldDto[];
  /** Of the field that was asked for, what runs out first before the rest. */
  rows: CoverRowDto[];
}
/** What an item is a part of. */
export class KitOfDto {
  sku: string;
  name: string;
}
export class BackToDto {
  supplier: string;
  arrival: string;
}
export class ExcessRowDto {
  sku: string;
  name: string;
  picture: string | null;
  unit: string;
  unitPlural: string;
  free: number;
  /** More than half a year takes and than an order brings it up to. */
  units: number;
  coverDays: number | null;
  /** Days since what is still there came in, on average; null where that is not known. */
  ageDays: number | null;
  /** When the first of it passes its date. */
  expiresOn: string | null;
  value?: string;
  /** Another site that would order it. */
  wantedAt: SpareGoodsDto | null;
  /** What it came with lately, and can be sent back from. */
  backTo: BackToDto | null;
  /** Kits and assemblies that it goes into. */
  inKits: KitOfDto[];
}
export class ExcessDto {
  siteId: number;
  today: string;
  value?: string;
  rows: ExcessRowDto[];
}
