import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsEmail,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { PackDto } from './items.dto.js';

const PRICE = /^\d{1,10}(\.\d{1,6})?$/;

export class SupplierItemDto {
  itemId: number;
  sku: string;
  name: string;
  picture: string;
  supplierSku: string;
  packId: number;
  /** Price of one pack; absent for those who may not see costs. */
  price?: string;
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
  version: number;
}
export class SupplierSheetDto extends SupplierDto {
  items: SupplierItemDto[];
}
export class EditSupplierItemDto {
  @IsString() @Length(1, 40) sku: string;
  @IsInt() @Min(1) factor: number;
  @IsString() @MaxLength(40) supplierSku: string;
  @Matches(PRICE, { message: 'A price is a number of up to 6 decimal places' }) price: string;
}
export class EditSupplierDto {
  @Matches(/^[A-Za-z0-9-]{2,20}$/, { message: 'A supplier code is 2 to 20 letters, digits and hyphens' })
  code: string;
  @IsString() @Length(1, 120) name: string;
  @IsEmail({}, { message: 'Type an e-mail address, like orders@example.org' }) email: string;
  @IsString() @MaxLength(40) phone: string;
  @Matches(/^[A-Z]{3}$/, { message: 'A currency is three capital letters, such as GBP' }) currency: string;
  @IsInt() @Min(0) @Max(365) leadDays: number;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => EditSupplierItemDto)
  items?: EditSupplierItemDto[];
}
export class ListingDto {
  channelSku: string;
  sku: string;
  name: string;
  factor: number;
  keepBack: number;
  price: string;
  told: number | null;
}
export class ChannelDto {
  id: number;
  code: string;
  name: string;
  kind: string;
  site: string;
  baseUrl: string | null;
  polledAt: Date | null;
  pollError: string | null;
  listings: number;
  version: number;
}
export class ChannelSheetDto extends ChannelDto {
  items: ListingDto[];
}
export class EditListingDto {
  @IsString() @Length(1, 60) channelSku: string;
  @IsString() @Length(1, 40) sku: string;
  @IsInt() @Min(1) @Max(1_000_000) factor: number;
  @IsInt() @Min(0) @Max(1_000_000) keepBack: number;
  @Matches(PRICE, { message: 'A price is a number of up to 6 decimal places' }) price: string;
}
export class EditChannelDto {
  @IsString() @Length(1, 80) name: string;
  @IsOptional()
  @Matches(/^https?:\/\/[^\s]{1,180}$/, { message: 'An address begins with http:// or https://' })
  baseUrl?: string | null;
  @IsArray()
  @ArrayMaxSize(5000)
  @ValidateNested({ each: true })
  @Type(() => EditListingDto)
  listings: EditListingDto[];
}
export class NewChannelDto extends EditChannelDto {
  @Matches(/^[A-Za-z0-9-]{2,20}$/, { message: 'A channel code is 2 to 20 letters, digits and hyphens' })
  code: string;
  @IsIn(['web-shop', 'marketplace', 'trade', 'phone']) kind: 'web-shop' | 'marketplace' | 'trade' | 'phone';
  @IsInt() siteId: number;
  @IsOptional() @IsString() @Length(16, 100) secret?: string | null;
}
