import { ApiProperty } from '@nestjs/swagger';
import { ArrayMaxSize, IsISO8601, IsOptional, IsString, Length, MaxLength, MinLength } from 'class-validator';

export class TraceFoundDto {
  sku: string;
  item: string;
  lot: string;
}
export class TraceOriginDto {
  @ApiProperty({ enum: ['supplier', 'customer', 'assembly', 'count', 'opening', 'other'] }) kind:
    'supplier' | 'customer' | 'assembly' | 'count' | 'opening' | 'other';
  document: string | null;
  /** Who it came from; null where nobody is named. */
  who: string | null;
  units: number;
  at: Date;
  by: string | null;
}
export class TraceWhereDto {
  place: string;
  kind: string;
  site: string;
  condition: string;
  units: number;
  /** The order that has it in a tote or parcel; null where it is nobody's. */
  order: string | null;
}
export class TraceWentDto {
  order: string;
  customer: string;
  email: string;
  phone: string;
  parcel: string | null;
  tracking: string | null;
  units: number;
  /** Units of it that came back. */
  back: number;
  at: Date;
}
export class TraceUsedDto {
  @ApiProperty({ enum: ['scrap', 'own-use', 'assembly', 'supplier', 'count', 'in-transit'] }) kind:
    'scrap' | 'own-use' | 'assembly' | 'supplier' | 'count' | 'in-transit';
  document: string | null;
  why: string | null;
  units: number;
  at: Date;
  by: string | null;
}
/** A lot of goods that were built with this one, or that this one was built with. */
export class TraceKinDto {
  sku: string;
  item: string;
  lot: string | null;
  document: string;
  units: number;
}
export class TraceRecallDto {
  id: number;
  reason: string;
  by: string | null;
  at: Date;
  freedAt: Date | null;
  toldAt: Date | null;
  version: number;
}
export class TraceDto {
  lotId: number;
  itemId: number;
  sku: string;
  item: string;
  lot: string;
  expiresOn: string | null;
  firstOn: string | null;
  origins: TraceOriginDto[];
  where: TraceWhereDto[];
  went: TraceWentDto[];
  used: TraceUsedDto[];
  /** What it was built from, and what it was built into. */
  madeFrom: TraceKinDto[];
  madeInto: TraceKinDto[];
  recalls: TraceRecallDto[];
  movements: number;
}
export class HoldLotDto {
  @IsString() @MinLength(3, { message: 'Say why it is held' }) @MaxLength(200) reason: string;
}
export class HeldLotDto {
  units: number;
  /** Orders that have some of it in totes or parcels of the house: they are stopped by hand. */
  orders: string[];
  /** Why it could not be held in places, if anywhere. */
  failed: string[];
}
export class TellOfRecallDto {
  /** The orders whose customers are written to. */
  @IsString({ each: true }) @MaxLength(20, { each: true }) @ArrayMaxSize(1000) orders: string[];
}
export class ToldOfRecallDto {
  written: number;
  toRing: number;
}
/** What a lot is by its label. */
export class CorrectLotDto {
  @IsString() @MinLength(1) @MaxLength(40) lot: string;
  @IsOptional() @IsISO8601({ strict: true }) @Length(10, 10) expiresOn?: string | null;
  @IsString() @MinLength(3, { message: 'Say why' }) @MaxLength(100) why: string;
}
export class CorrectedLotDto {
  lot: string;
  /** Units that are of another lot now; nought where only its code or date was wrong. */
  units: number;
}
const TODO = ['sells', 'transfer', 'mark-down', 'take-out'] as const;
/** Goods of a lot at a site that pass their date soon. */
export class ExpiringLotDto {
  sku: string;
  item: string;
  picture: string | null;
  lot: string;
  expiresOn: string;
  /** Until then; below nought where it has passed. */
  days: number;
  siteId: number;
  site: string;
  units: number;
  /** Of them: held or damaged, which is sold to nobody. */
  held: number;
  /** What they are worth; null for those who may not see it. */
  value: string | null;
  /** Units that are asked for a week at that site. */
  aWeek: number;
  /** Units that will be left when it passes its date. */
  left: number;
  leftValue: string | null;
  /** What may be done: nothing, send it where it is asked for more, mark it down, take it out. */
  @ApiProperty({ enum: TODO }) todo: (typeof TODO)[number];
  /** The site that asks for more of it. */
  elsewhere: string | null;
}
export class ExpiringDto {
  days: number;
  lots: ExpiringLotDto[];
}
