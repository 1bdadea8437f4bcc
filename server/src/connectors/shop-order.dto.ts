import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsEmail,
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

export class ShopOrderLineDto {
  @IsString() @Length(1, 60) sku: string;
  @IsInt() @Min(1) @Max(100_000) quantity: number;
  @Matches(/^\d{1,10}(\.\d{1,6})?$/) price: string;
}
export class ShopAddressDto {
  @IsString() @MaxLength(200) line: string;
  @IsString() @MaxLength(80) city: string;
  @IsString() @MaxLength(16) postcode: string;
  @IsString() @Length(2, 2) country: string;
}
/** An order as a web shop sends it. */
export class ShopOrderDto {
  @IsString() @Length(1, 60) ref: string;
  @IsISO8601() placedAt: string;
  @IsString() @Length(1, 120) customer: string;
  @IsOptional() @IsEmail() email?: string;
  @IsObject() @ValidateNested() @Type(() => ShopAddressDto) address: ShopAddressDto;
  @IsOptional() @IsString() @MaxLength(300) note?: string | null;
  @IsOptional() @IsString() @MaxLength(20) speed?: string;
  @IsOptional() @IsISO8601() promisedAt?: string;
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(300)
  @ValidateNested({ each: true })
  @Type(() => ShopOrderLineDto)
  lines: ShopOrderLineDto[];
}
export class TakenInDto {
  code: string;
  /** True where the order was here already. */
  known: boolean;
}
