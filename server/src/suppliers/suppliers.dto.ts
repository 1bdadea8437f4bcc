import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsEmail,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { PackDto } from '../catalogue/index.js';

const PRICE = /^\d{1,10}(\.\d{1,6})?$/;

export class PriceBreakDto {
  @IsInt() @Min(2, { message: 'A lower price begins at 2 packs or more' }) @Max(1_000_000) from: number;
  @Matches(PRICE, { message: 'A price is a number of up to 6 decimal places' }) price: string;
}
export class ContactDto {
  @IsString() @Length(1, 80, { message: 'Name the person' }) name: string;
  @IsString() @MaxLength(60) role: string;
  @ValidateIf((c: ContactDto) => c.email !== '')
  @IsEmail({}, { message: 'Type an e-mail address, like orders@example.org' })
  email: string;
  @IsString() @MaxLength(40) phone: string;
}
/** How many of how many were as they should be. */
export class ShareDto {
  good: number;
  of: number;
}
export class ScorecardDto {
  /** Orders of the last year that are done with. */
  orders: number;
  onTime: ShareDto;
  inFull: ShareDto;
  priceHeld: ShareDto;
  /** Units that came in good condition. */
  unharmed: ShareDto;
  /** Days from placing to the first goods, on average; null where none has come yet. */
  leadDays: number | null;
}
export class SupplierItemDto {
  itemId: number;
  sku: string;
  name: string;
  picture: string;
  supplierSku: string;
  packId: number;
  /** Price of one pack; absent for those who may not see costs. */
  price?: string;
  /** Lower prices for more packs; absent for those who may not see costs. */
  breaks?: PriceBreakDto[];
  packs: PackDto[];
}
export class SupplierDto {
  id: number;
  code: string;
  name: string;
  email: string;
  phone: string;
  currency: string;
  leadDays: number;
  terms: string;
  workingDays: string;
  /** The days on which it takes orders, from Monday on. */
  orderDays: string;
  /** The least that an order must come to; null where nothing is asked. */
  leastValue: string | null;
  leastUnits: number | null;
  leastPallets: number | null;
  version: number;
}
export class SupplierPageDto {
  rows: SupplierDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class SupplierSheetDto extends SupplierDto {
  /** Whether its own system may send documents. */
  sendsDocuments: boolean;
  contacts: ContactDto[];
  scorecard: ScorecardDto;
  items: SupplierItemDto[];
}
export class EditSupplierItemDto {
  @IsString() @Length(1, 40) sku: string;
  @IsInt() @Min(1) factor: number;
  @IsString() @MaxLength(40) supplierSku: string;
  @Matches(PRICE, { message: 'A price is a number of up to 6 decimal places' }) price: string;
  @IsOptional() @IsArray() @ArrayMaxSize(12) @ValidateNested({ each: true }) @Type(() => PriceBreakDto) breaks?: PriceBreakDto[];
}
export class DocumentKeyDto {
  key: string;
}
export class EditSupplierDto {
  @Matches(/^[A-Za-z0-9-]{2,20}$/, { message: 'A supplier code is 2 to 20 letters, digits and hyphens' })
  code: string;
  @IsString() @Length(1, 120) name: string;
  @IsEmail({}, { message: 'Type an e-mail address, like orders@example.org' }) email: string;
  @IsString() @MaxLength(40) phone: string;
  @Matches(/^[A-Z]{3}$/, { message: 'A currency is three capital letters, such as GBP' }) currency: string;
  @IsInt() @Min(0) @Max(365) leadDays: number;
  @IsOptional() @IsString() @MaxLength(80) terms?: string;
  @IsOptional() @Matches(/^(?=.*Y)[YN]{7}$/, { message: 'Choose at least one working day' }) workingDays?: string;
  @IsOptional() @Matches(/^(?=.*Y)[YN]{7}$/, { message: 'Choose at least one day on which they take orders' }) orderDays?: string;
  @IsOptional() @Matches(/^\d{1,10}(\.\d{1,2})?$/, { message: 'A least value is an amount, such as 500.00' }) leastValue?: string | null;
  @IsOptional() @IsInt() @Min(1) @Max(10_000_000) leastUnits?: number | null;
  @IsOptional() @IsInt() @Min(1) @Max(1000) leastPallets?: number | null;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(30)
  @ValidateNested({ each: true })
  @Type(() => ContactDto)
  contacts?: ContactDto[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => EditSupplierItemDto)
  items?: EditSupplierItemDto[];
}
