import { WISHES, type Wish } from '@vectrum/core/customer-returns';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsISO8601,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';

const QUANTITY = { message: 'a whole number from 1 to 100,000' };
const text = (least: number, most: number) => ({ message: `words of ${least} to ${most} characters` });
const REVISION = { message: 'a whole number' };
const INSTANT = { message: 'a date and time, such as 2026-05-14T08:00:00Z' };

export class ShopOrderLineDto {
  @IsString(text(1, 60)) @Length(1, 60, text(1, 60)) sku: string;
  @IsInt(QUANTITY) @Min(1, QUANTITY) @Max(100_000, QUANTITY) quantity: number;
  @Matches(/^\d{1,10}(\.\d{1,6})?$/, { message: 'an amount as text, such as "0.95"' }) price: string;
}
export class ShopAddressDto {
  @IsString(text(0, 200)) @MaxLength(200, text(0, 200)) line: string;
  @IsString(text(0, 80)) @MaxLength(80, text(0, 80)) city: string;
  @IsString(text(0, 16)) @MaxLength(16, text(0, 16)) postcode: string;
  @IsString({ message: 'a country of two letters, such as GB' })
  @Length(2, 2, { message: 'a country of two letters, such as GB' })
  country: string;
}
/** An order as a web shop sends it. What is said against a field stands behind its name. */
export class ShopOrderDto {
  @IsString(text(1, 60)) @Length(1, 60, text(1, 60)) ref: string;
  @IsISO8601({}, INSTANT) placedAt: string;
  @IsString(text(1, 120)) @Length(1, 120, text(1, 120)) customer: string;
  @IsOptional() @IsEmail({}, { message: 'a mail address' }) email?: string;
  @IsObject({ message: 'line, city, postcode and country' }) @ValidateNested() @Type(() => ShopAddressDto) address: ShopAddressDto;
  @IsOptional() @IsString(text(0, 300)) @MaxLength(300, text(0, 300)) note?: string | null;
  @IsOptional() @IsString(text(0, 20)) @MaxLength(20, text(0, 20)) speed?: string;
  @IsOptional() @IsISO8601({}, INSTANT) promisedAt?: string;
  @IsOptional() @IsString(text(0, 40)) @MaxLength(40, text(0, 40)) phone?: string;
  /** False where the customer has not paid yet. */
  @IsOptional() @IsBoolean({ message: 'true or false' }) paid?: boolean;
  /** How often the shop has said this order; the highest holds. */
  @IsOptional() @IsInt(REVISION) @Min(0, REVISION) revision?: number;
  @IsArray({ message: 'a list of lines' })
  @ArrayMinSize(1, { message: 'at least one line' })
  @ArrayMaxSize(300, { message: 'at most 300 lines' })
  @ValidateNested({ each: true, message: 'a list of lines' })
  @Type(() => ShopOrderLineDto)
  lines: ShopOrderLineDto[];
}
/** An order that the shop has cancelled. */
export class ShopCancelDto {
  @IsString(text(1, 60)) @Length(1, 60, text(1, 60)) ref: string;
  @IsOptional() @IsString(text(0, 200)) @MaxLength(200, text(0, 200)) why?: string;
}
export class ShopReturnLineDto {
  @IsString(text(1, 60)) @Length(1, 60, text(1, 60)) sku: string;
  @IsInt(QUANTITY) @Min(1, QUANTITY) @Max(100_000, QUANTITY) quantity: number;
  /** Why it comes back; what we do not know counts as no reason given. */
  @IsOptional() @IsString(text(0, 60)) @MaxLength(60, text(0, 60)) reason?: string;
}
/** Goods of an order that the shop's customer sends back. */
export class ShopReturnDto {
  @IsString(text(1, 60)) @Length(1, 60, text(1, 60)) ref: string;
  /** The shop's own number of the return. */
  @IsString(text(1, 60)) @Length(1, 60, text(1, 60)) returnRef: string;
  @IsOptional() @IsIn(WISHES, { message: `one of ${WISHES.join(', ')}` }) wish?: Wish | null;
  @IsOptional() @IsString(text(0, 300)) @MaxLength(300, text(0, 300)) note?: string | null;
  @IsArray({ message: 'a list of lines' })
  @ArrayMinSize(1, { message: 'at least one line' })
  @ArrayMaxSize(300, { message: 'at most 300 lines' })
  @ValidateNested({ each: true, message: 'a list of lines' })
  @Type(() => ShopReturnLineDto)
  lines: ShopReturnLineDto[];
}
