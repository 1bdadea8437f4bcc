import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsInt, IsString, Length, Max, Min, ValidateNested } from 'class-validator';

/** An order of a round. */
export class SheetOrderDto {
  id: number;
  code: string;
  customer: string;
  note: string | null;
  totes: string[];
}
/** A stop, in the order of the walk. */
export class SheetStopDto {
  id: number;
  order: string;
  place: string;
  sku: string;
  item: string;
  lot: string | null;
  /** What is wanted, as people say it: "1 box and 2". */
  wanted: string;
  units: number;
  picked: number;
  short: number;
  /** Who goes there; null where nobody does yet. */
  by: string | null;
  /** Who that is, while something is wanted there. */
  byId: number | null;
}
/** A round as the office sees it. */
export class RoundSheetDto {
  code: string;
  siteId: number;
  site: string;
  state: string;
  /** Whether its orders share totes and are sorted at a wall afterwards. */
  pooled: boolean;
  picker: string | null;
  sentTo: string | null;
  createdAt: Date;
  begunAt: Date | null;
  finishedAt: Date | null;
  promisedAt: Date;
  leavesAt: Date | null;
  metres: number;
  orders: SheetOrderDto[];
  /** Whom totes are for: each order, or all of a pooled round together. */
  holders: SheetOrderDto[];
  stops: SheetStopDto[];
  /** The cart that it is walked with, or was. */
  cart: string | null;
  /** Where its totes may be set down: packing tables, or the walls of a pooled round. */
  tables: string[];
}

export class PaperToteDto {
  @IsInt() orderId: number;
  @IsString() @Length(1, 40) tote: string;
}
export class PaperStopDto {
  @IsInt() stopId: number;
  /** The units that were taken; the rest was not there. */
  @IsInt() @Min(0) @Max(1_000_000) units: number;
}
/** What was written on the paper list. */
export class PaperResultsDto {
  @IsArray() @ArrayMaxSize(60) @ValidateNested({ each: true }) @Type(() => PaperToteDto) totes: PaperToteDto[];
  @IsArray() @ArrayMaxSize(2000) @ValidateNested({ each: true }) @Type(() => PaperStopDto) stops: PaperStopDto[];
  /** The packing table at which the totes stand. */
  @IsString() @Length(1, 40) table: string;
}
