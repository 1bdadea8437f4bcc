import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';

/** What a price of a listing looks like. */
export const PRICE = /^\d{1,10}(\.\d{1,6})?$/;

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
  pushError: string | null;
  /** When it answered last. */
  answeredAt: Date | null;
  /** Whether it is left alone: neither asked nor told. */
  paused: boolean;
  sharePercent: number;
  scarceUnder: number;
  checkOver: string | null;
  /** Whether the prices of its orders hold the tax. */
  pricesHoldTax: boolean;
  /** Messages that wait to be mended, stock figures and messages that wait to be told. */
  unread: number;
  dueStock: number;
  dueMessages: number;
  /** Whether a secret is kept with which the channel signs. The secret itself is told once, when it is given. */
  hasSecret: boolean;
  listings: number;
  version: number;
}
export class ChannelSheetDto extends ChannelDto {
  /** The sites that it sells from. */
  siteIds: number[];
  items: ListingDto[];
  /** Where files of its orders may be put, on the server; null where nothing is looked for. */
  folder: string | null;
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
  /** The sites that it sells from; without them it stays as it is, or begins with its own. */
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsInt({ each: true }) siteIds?: number[];
  @IsOptional() @IsBoolean() paused?: boolean;
  /** Its part, in hundredths, of what is scarce, and under how many pieces goods are. */
  @IsOptional() @IsInt() @Min(0) @Max(100) sharePercent?: number;
  @IsOptional() @IsInt() @Min(0) @Max(1_000_000) scarceUnder?: number;
  /** A first order of somebody that is worth more waits for a check; null where none does. */
  @IsOptional() @Matches(PRICE, { message: 'An amount is a number, such as 250' }) checkOver?: string | null;
  /** Whether the prices of its orders hold the tax; without it that stays as it is. */
  @IsOptional() @IsBoolean() pricesHoldTax?: boolean;
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
}
export class ChannelSecretDto {
  secret: string;
}
