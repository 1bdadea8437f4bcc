import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsISO8601,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';

export class PurchaseOrderRowDto {
  code: string;
  supplier: string;
  site: string;
  state: string;
  expectedOn: string | null;
  late: boolean;
  lines: number;
  linesIn: number;
  /** What the supplier has said to it: nothing, acknowledged, confirmed, to-settle, queried, refused. */
  answer: string;
  /** Since when the goods stand at the door, part received. */
  firstReceivedAt: Date | null;
  /** The dock it comes to; null for whichever is free. */
  door: string | null;
  /** Whom to ring about it. */
  ring: string;
  phone: string;
  /** Its goods in a few words: the first two, and how many more. */
  holds: string;
  /** What its goods come to in its currency; absent for those who see no costs. */
  worth?: string;
  currency: string;
  /** Who placed it, or wrote it. */
  buyer: string;
}
export class PurchaseOrderPageDto {
  rows: PurchaseOrderRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class OrderFileDto {
  id: number;
  name: string;
  bytes: number;
  by: string;
  at: Date;
}
export class KeptFileDto {
  id: number;
}
export class LineAnswerDto {
  says: string;
  packs: number | null;
  /** Absent for those who may not see costs. */
  price?: string | null;
  on: string | null;
  note: string;
}
export class ChargeDto {
  @IsString() @Length(1, 60, { message: 'Say what the charge is for, in up to 60 letters' }) says: string;
  @Matches(/^(?!0+(\.0+)?$)\d{1,10}(\.\d{1,2})?$/, { message: 'A charge is an amount above nought, such as 120.00' }) amount: string;
  /** What it is shared over the goods by. */
  @IsIn(['value', 'units', 'weight', 'volume']) by: 'value' | 'units' | 'weight' | 'volume';
}
export class OrderChangeDto {
  at: Date;
  by: string;
  line: number | null;
  what: string;
  was: string;
  becomes: string;
  why: string;
}
export class PurchaseOrderLineDto {
  line: number;
  sku: string;
  name: string;
  picture: string;
  packId: number;
  pack: string;
  packPlural: string;
  factor: number;
  unit: string;
  units: string;
  packs: number;
  /** Base units. */
  ordered: number;
  received: number;
  /** Nobody waits for these any more. */
  closed: number;
  /** Of what came, sent back to the supplier. */
  returned: number;
  /** Its own day, where it has one. */
  expectedOn: string | null;
  answer: LineAnswerDto | null;
  /** Price of one pack, of one base unit, and of the line; absent for those who may not see costs. */
  price?: string;
  priceEach?: string;
  goods?: string;
}
export class PurchaseOrderDto {
  code: string;
  supplierCode: string;
  supplier: string;
  supplierEmail: string;
  supplierPhone: string;
  siteId: number;
  site: string;
  /** Where it is; empty where nobody has said. */
  siteAddress: string;
  state: string;
  currency: string;
  expectedOn: string | null;
  note: string;
  createdBy: string;
  createdAt: Date;
  placedAt: Date | null;
  placedBy: string | null;
  firstReceivedAt: Date | null;
  goods?: string;
  /** Absent for those who may not see costs. */
  charges?: ChargeDto[];
  answer: string;
  answerNote: string;
  changes: OrderChangeDto[];
  /** Orders of the same supplier, not long ago, with the same goods. */
  alike: string[];
  arrivals: string[];
  door: string | null;
  files: OrderFileDto[];
  lines: PurchaseOrderLineDto[];
  version: number;
}
export class EditPurchaseOrderLineDto {
  @IsString() @Length(1, 40) sku: string;
  @IsInt() @Min(1) @Max(1_000_000) factor: number;
  @IsInt({ message: 'A quantity is a whole number of packs' })
  @Min(1, { message: 'Order at least 1' })
  @Max(100_000)
  packs: number;
  @Matches(/^\d{1,10}(\.\d{1,6})?$/, { message: 'A price is a number of up to 6 decimal places' })
  price: string;
  @IsOptional() @IsISO8601({ strict: true }) @Length(10, 10) expectedOn?: string | null;
}
export class EditPurchaseOrderDto {
  @IsString() @Length(2, 20) supplier: string;
  @IsInt() siteId: number;
  @IsOptional() @IsISO8601({ strict: true }) @Length(10, 10) expectedOn?: string | null;
  @IsOptional() @IsString() @MaxLength(20) door?: string | null;
  @IsString() @MaxLength(500) note: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Write at least one line' })
  @ArrayMaxSize(300)
  @ValidateNested({ each: true })
  @Type(() => EditPurchaseOrderLineDto)
  lines: EditPurchaseOrderLineDto[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => ChargeDto)
  charges?: ChargeDto[];
}
export class SettleAnswerDto {
  /** Take what the supplier offers, or ask again. */
  @IsIn(['accept', 'query']) says: 'accept' | 'query';
  @IsString() @MaxLength(300) note: string;
}
export class SpokenLineDto {
  @IsInt() @Min(1) line: number;
  @IsIn(['accepted', 'changed', 'refused']) says: 'accepted' | 'changed' | 'refused';
  /** Packs, the price of one and the day, where they differ from what was ordered. */
  @IsOptional() @IsInt() @Min(1) @Max(100_000) packs?: number | null;
  @IsOptional() @Matches(/^\d{1,10}(\.\d{1,6})?$/, { message: 'A price is a number of up to 6 decimal places' }) price?: string | null;
  @IsOptional() @IsISO8601({ strict: true }) @Length(10, 10) promisedOn?: string | null;
}
export class SpokenAnswerDto {
  @IsIn(['accepted', 'changed', 'refused']) says: 'accepted' | 'changed' | 'refused';
  /** Whom one spoke to, and what was said. */
  @IsString() @MaxLength(300) note: string;
  /** A day for all that is still to come. */
  @IsOptional() @IsISO8601({ strict: true }) @Length(10, 10) promisedOn?: string | null;
  @IsArray() @ArrayMaxSize(300) @ValidateNested({ each: true }) @Type(() => SpokenLineDto) lines: SpokenLineDto[];
}
export class MergeOrderDto {
  @Matches(/^[A-Za-z]-\d{1,10}$/, { message: 'A purchase order is called like P-1187' }) other: string;
}
export class SplitOrderDto {
  @IsArray() @ArrayMinSize(1, { message: 'Choose the lines that go onto an order of their own' }) @IsInt({ each: true }) lines: number[];
}
