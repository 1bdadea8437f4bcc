import { Type } from 'class-transformer';
import type { ApartReason, ReceiveAs } from '@vectrum/core/scan';
import { IsIn, IsInt, IsISO8601, IsOptional, IsString, Length, Matches, Max, MaxLength, Min } from 'class-validator';

export class HowDto {
  @IsIn(['scanned', 'typed']) how: 'scanned' | 'typed';
}
export class ReceiveDto extends HowDto {
  /** The line of an order that the goods are for; absent where no line is meant. */
  @IsOptional() @IsInt() @Min(1) lineId?: number | null;
  @IsInt() itemId: number;
  @IsInt() @Min(1) @Max(10_000_000) units: number;
  @IsOptional() @IsString() @Length(1, 20) lot?: string | null;
  @IsOptional() @IsISO8601({ strict: true }) @Length(10, 10) expires?: string | null;
  @IsInt() toPlaceId: number;
  @IsOptional() @IsIn(['ordered', 'extra', 'unordered', 'apart']) as?: ReceiveAs;
  @IsOptional() @IsIn(['good', 'damaged']) condition?: 'good' | 'damaged';
  @IsOptional() @IsIn(['wrong goods', 'too many', 'too old']) reason?: ApartReason | null;
}
export class ReceivePalletDto extends HowDto {
  @Matches(/^\d{18}$/, { message: 'A pallet code is 18 digits' }) sscc: string;
  @IsInt() toPlaceId: number;
}
export class NewArrivalDto {
  @IsInt() siteId: number;
  @IsOptional() @IsString() @Length(2, 20) supplier?: string | null;
}
export class CloseArrivalDto {
  /** The number on the supplier's delivery paper; empty where there is none. */
  @IsString() @MaxLength(60) paper: string;
}
export class ShortLineDto {
  order: string;
  line: number;
  name: string;
  /** Base units, and the same in words. */
  units: number;
  missing: string;
}
export class ClosedArrivalDto {
  code: string;
  short: ShortLineDto[];
}
export class StoreDto extends HowDto {
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @IsInt() @Min(1) @Max(10_000_000) units: number;
  @IsInt() fromPlaceId: number;
  @IsInt() toPlaceId: number;
}
export class RefusedDto extends HowDto {
  @IsIn(['not-this', 'too-many', 'unknown']) band: 'not-this' | 'too-many' | 'unknown';
  @IsString() @MaxLength(150) title: string;
  @IsString() @MaxLength(280) detail: string;
  @IsString() @MaxLength(200) code: string;
  @IsOptional() @IsString() @MaxLength(40) document?: string;
  @IsOptional() @Type(() => Number) @IsInt() siteId?: number;
}
export class DueDto {
  /** An order, or an arrival with lines of one order or several. */
  code: string;
  kind: 'order' | 'arrival';
  supplier: string;
  expectedOn: string | null;
  late: boolean;
  /** The dock it comes to; null for whichever is free. */
  door: string | null;
  /** Since when goods of it stand at the door; null where nothing has come. */
  since: Date | null;
  lines: number;
  linesIn: number;
  pallets: number;
}
export class FindDueDto {
  /** What the code opens; null where it is several or none. */
  opens: string | null;
  choices: DueDto[];
}
/** The id of the tape's line, for an undo. */
export class PostedDto {
  activityId: number;
}
export class ReceivedDto extends PostedDto {
  receiptId: number;
  /** The arrival that it was booked in with. */
  arrival: string;
}
export class TakenDocumentDto {
  /** OrderResponse or DespatchAdvice. */
  kind: string;
  /** The order that was answered, or the arrival that was announced. */
  code: string;
  says: string;
}
