import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
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

const AMOUNT = /^-?\d{1,12}(\.\d{1,2})?$/;
const SHARED = ['value', 'units', 'weight', 'volume'] as const;

export class BillRowDto {
  code: string;
  supplier: string;
  ref: string;
  state: string;
  billedOn: string;
  dueOn: string | null;
  currency: string;
  total: string;
}
export class BillPageDto {
  rows: BillRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class BillLineDto {
  line: number;
  order: string;
  /** Of goods: the order's line, what it is, base units in words; null for a charge. */
  orderLine: number | null;
  name: string;
  words: string | null;
  amount: string;
  sharedBy: string | null;
  /** Beside the order and what came: fits, too many, dearer, cheaper, or late for a charge that nobody had expected. */
  finding: string;
  expected: string;
  difference: string;
  overWords: string | null;
}
export class ValueEntryDto {
  debit: string;
  credit: string;
  sku: string | null;
  amount: string;
}
export class BillDto extends BillRowDto {
  supplierCode: string;
  supplierEmail: string;
  rate: string;
  note: string;
  enteredBy: string;
  enteredAt: Date;
  postedBy: string | null;
  postedAt: Date | null;
  version: number;
  lines: BillLineDto[];
  /** What the bill did to the books, in the house's money. */
  entries: ValueEntryDto[];
}
export class OpenGoodsDto {
  order: string;
  line: number;
  sku: string;
  name: string;
  /** Base units that came and were not billed, in words too, and what they cost by the order. */
  units: number;
  words: string;
  amount: string;
}
export class OpenChargeDto {
  order: string;
  says: string;
  amount: string;
  by: string;
}
export class OpenToBillDto {
  currency: string;
  goods: OpenGoodsDto[];
  /** How many older lines are not among them. */
  behind: number;
  charges: OpenChargeDto[];
  /** Orders of any supplier with goods that came lately: what a carrier's bill may be for. */
  orders: string[];
}
export class EnterGoodsDto {
  @Matches(/^[A-Za-z]-\d{1,10}$/, { message: 'An order is called like P-1187' }) order: string;
  @IsInt() @Min(1) line: number;
  @IsInt() @Min(1, { message: 'Say how many are billed' }) @Max(100_000_000) units: number;
  @Matches(AMOUNT, { message: 'An amount is a number such as 120.00' }) amount: string;
}
export class EnterChargeDto {
  @Matches(/^[A-Za-z]-\d{1,10}$/, { message: 'An order is called like P-1187' }) order: string;
  @IsString() @Length(1, 60, { message: 'Say what the charge is for' }) says: string;
  @Matches(AMOUNT, { message: 'An amount is a number such as 120.00' }) amount: string;
  @IsIn(SHARED) by: (typeof SHARED)[number];
}
export class EnterBillDto {
  @IsString() @Length(2, 20) supplier: string;
  @IsString() @Length(1, 60, { message: 'Type the number on the bill' }) ref: string;
  @IsISO8601({ strict: true }) @Length(10, 10) billedOn: string;
  @IsOptional() @IsISO8601({ strict: true }) @Length(10, 10) dueOn?: string | null;
  @IsString() @MaxLength(300) note: string;
  @IsArray() @ArrayMaxSize(300) @ValidateNested({ each: true }) @Type(() => EnterGoodsDto) goods: EnterGoodsDto[];
  @IsArray() @ArrayMaxSize(20) @ValidateNested({ each: true }) @Type(() => EnterChargeDto) charges: EnterChargeDto[];
}
export class SettleBillDto {
  @IsIn(['accept', 'query']) says: 'accept' | 'query';
  @IsString() @MaxLength(300) note: string;
}
