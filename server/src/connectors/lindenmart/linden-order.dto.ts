import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
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
const INSTANT = { message: 'a date and time, such as 2026-05-14T08:00:00Z' };
const text = (least: number, most: number) => ({ message: `words of ${least} to ${most} characters` });

class LindenLineDto {
  @IsString(text(1, 60)) @Length(1, 60, text(1, 60)) offer: string;
  @IsInt(QUANTITY) @Min(1, QUANTITY) @Max(100_000, QUANTITY) count: number;
  @Matches(/^\d{1,10}(\.\d{1,6})?$/, { message: 'an amount as text, such as "0.95"' }) unitPrice: string;
}
class LindenRecipientDto {
  @IsString(text(1, 120)) @Length(1, 120, text(1, 120)) name: string;
  @IsString(text(0, 200)) @MaxLength(200, text(0, 200)) street: string;
  @IsString(text(0, 80)) @MaxLength(80, text(0, 80)) town: string;
  @IsString(text(0, 16)) @MaxLength(16, text(0, 16)) postcode: string;
  @IsString() @Length(2, 2, { message: 'a country of two letters, such as GB' }) country: string;
}
/** An order as the marketplace says it: what it calls goods is an offer of its own, and when it must leave is strict. */
export class LindenOrderDto {
  @IsString(text(1, 60)) @Length(1, 60, text(1, 60)) number: string;
  @IsIn(['placed', 'cancelled'], { message: 'placed or cancelled' }) status: 'placed' | 'cancelled';
  @IsInt({ message: 'a whole number' }) @Min(0) edition: number;
  @IsISO8601({}, INSTANT) bought: string;
  @IsISO8601({}, INSTANT) dispatchBy: string;
  @IsObject({ message: 'name, street, town, postcode and country' })
  @ValidateNested()
  @Type(() => LindenRecipientDto)
  recipient: LindenRecipientDto;
  @IsOptional() @IsString(text(0, 300)) @MaxLength(300, text(0, 300)) message?: string | null;
  @IsArray({ message: 'a list of goods' })
  @ArrayMinSize(1, { message: 'at least one of the goods' })
  @ArrayMaxSize(300, { message: 'at most 300 of the goods' })
  @ValidateNested({ each: true, message: 'a list of goods' })
  @Type(() => LindenLineDto)
  goods: LindenLineDto[];
}
