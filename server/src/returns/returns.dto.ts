import { CONDITIONS, type Condition } from '@vectrum/core/ledger';
import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsInt, IsString, Length, Matches, Max, Min, ValidateNested } from 'class-validator';

/** Goods that stand apart, with what is known of how they came. */
export class AsideDto {
  siteId: number;
  itemId: number;
  sku: string;
  name: string;
  picture: string;
  lotId: number;
  lot: string | null;
  condition: string;
  placeId: number;
  place: string;
  units: number;
  words: string;
  supplierCode: string | null;
  supplier: string | null;
  order: string | null;
  reason: string | null;
}
export class SupplierReturnRowDto {
  code: string;
  supplier: string;
  site: string;
  state: string;
  sentAt: Date;
  lines: number;
  currency: string;
  /** Absent for those who may not see costs. */
  expected?: string;
}
export class SupplierReturnPageDto {
  rows: SupplierReturnRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class SupplierReturnLineDto {
  line: number;
  sku: string;
  name: string;
  picture: string;
  words: string;
  lot: string | null;
  condition: string;
  order: string | null;
  expected?: string;
}
export class SupplierReturnDto extends SupplierReturnRowDto {
  supplierCode: string;
  supplierEmail: string;
  reason: string;
  sentBy: string;
  creditRef: string | null;
  credited?: string | null;
  creditedAt: Date | null;
  creditedBy: string | null;
  version: number;
  goods: SupplierReturnLineDto[];
}
export class SendBackLineDto {
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @IsIn(CONDITIONS) condition: Condition;
  @IsInt() placeId: number;
  @IsInt() @Min(1, { message: 'Say how many go back' }) @Max(10_000_000) units: number;
}
export class SendBackDto {
  @IsString() @Length(2, 20) supplier: string;
  @IsInt() siteId: number;
  @IsString() @Length(1, 200, { message: 'Say why they go back' }) reason: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Choose goods to send back' })
  @ArrayMaxSize(100)
  @ValidateNested({ each: true })
  @Type(() => SendBackLineDto)
  lines: SendBackLineDto[];
}
export class TakeInDto {
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  /** Goods to inspect are judged, not taken in. */
  @IsIn(['held', 'damaged', 'apart']) condition: 'held' | 'damaged' | 'apart';
  @IsInt() placeId: number;
  @IsInt() @Min(1, { message: 'Say how many are taken into stock' }) @Max(10_000_000) units: number;
  @IsString() @Length(1, 200, { message: 'Say why they are good after all' }) reason: string;
}
export class CreditDto {
  @IsString() @Length(1, 60, { message: 'Type the number on the credit note' }) ref: string;
  @Matches(/^\d{1,12}(\.\d{1,2})?$/, { message: 'A credit is an amount, such as 120.00' }) amount: string;
}
