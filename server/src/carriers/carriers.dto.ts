import { applyDecorators } from '@nestjs/common';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';

/** A whole number from `least` to `most`; whatever is wrong with it, one sentence says what it should be. */
const Whole = (least: number, most: number, message: string) =>
  applyDecorators(IsInt({ message }), Min(least, { message }), Max(most, { message }));

const PRICE = /^\d{1,10}(\.\d{1,6})?$/;
const CODE = /^[A-Za-z0-9-]{2,20}$/;

/** What a carrier adds for one parcel; it is in the price already. */
export class SurchargeDto {
  name: string;
  price: string;
}
export class RateDto {
  carrier: string;
  carrierName: string;
  service: string;
  name: string;
  /** With all surcharges. */
  price: string;
  days: number;
  surcharges: SurchargeDto[];
}
export class OfferedRateDto extends RateDto {
  /** Whether it is fast enough for the speed that is asked for. */
  keeps: boolean;
}
export class RatesDto {
  rates: OfferedRateDto[];
  /** Carriers that did not answer, with what they said. */
  silent: string[];
}
export class LaneOfSiteDto {
  siteId: number;
  site: string;
  place: string;
}
export class CarrierServiceDto {
  @Matches(CODE, { message: 'A service code is 2 to 20 letters, digits and hyphens' }) code: string;
  @IsString() @Length(1, 60, { message: 'Say what the service is called' }) name: string;
  /** Working days until it is there. */
  @Whole(0, 90, 'Days until it is there, 0 to 90') days: number;
  @Matches(PRICE, { message: 'A price is a number of up to 6 decimal places' }) price: string;
  /** The heaviest parcel it takes, in grams. */
  @Whole(1, 5_000_000, 'How much it carries, in grams') mostG: number;
}
export class CarrierDto {
  code: string;
  name: string;
  /** Where its system answers; none where it has none and labels are our own. */
  baseUrl: string | null;
  /** Whether a key is kept for its system. The key itself is never told. */
  hasKey: boolean;
  lanes: LaneOfSiteDto[];
  services: number;
  version: number;
}
export class CarrierSheetDto extends CarrierDto {
  /** What it offers where it has no system that says so. */
  ownServices: CarrierServiceDto[];
  departures: { site: string; leavesAt: string }[];
  /** Parcels that wait for it. */
  waiting: number;
}
export class EditLaneDto {
  @IsInt() siteId: number;
  @IsString() @Length(1, 20, { message: 'Name the lane by the code of its place' }) place: string;
}
export class EditCarrierDto {
  @IsString() @Length(1, 80, { message: 'Say what the carrier is called' }) name: string;
  @IsOptional()
  @Matches(/^https?:\/\/[^\s]{1,180}$/, { message: 'An address begins with http:// or https://' })
  baseUrl?: string | null;
  /** A new key for its system; left out, the one before stays. */
  @IsOptional() @IsString() @MinLength(1) @MaxLength(200) apiKey?: string | null;
  @IsArray() @ArrayMaxSize(50) @ValidateNested({ each: true }) @Type(() => EditLaneDto) lanes: EditLaneDto[];
  @IsArray() @ArrayMaxSize(50) @ValidateNested({ each: true }) @Type(() => CarrierServiceDto) services: CarrierServiceDto[];
}
export class NewCarrierDto extends EditCarrierDto {
  @Matches(CODE, { message: 'A carrier code is 2 to 20 letters, digits and hyphens' }) code: string;
}
export class TryCarrierDto {
  @Whole(1, 5_000_000, 'What the parcel weighs, in grams') weightG: number;
  @IsString() @Length(1, 12) postcode: string;
  @Matches(/^[A-Z]{2}$/, { message: 'A country is two capital letters, such as GB' }) country: string;
}
export class TriedCarrierDto {
  rates: RateDto[];
}

export class BoxStockDto {
  siteId: number;
  site: string;
  units: number;
}
export class BoxDto {
  code: string;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  tareG: number;
  mostG: number;
  /** What one costs; absent for those who may not see costs. */
  cost?: string;
  /** At how many left on a site it runs short; 0 never says so. */
  lowAt: number;
  /** The item that it is kept as: bought, received and counted like goods; null where only its number is kept. */
  sku: string | null;
  stock: BoxStockDto[];
  version: number;
}
export class EditBoxStockDto {
  @IsInt() siteId: number;
  @Whole(0, 10_000_000, 'How many there are, a whole number') units: number;
}
export class EditBoxDto {
  @Whole(10, 10_000, 'Inner length in millimetres, 10 or more') lengthMm: number;
  @Whole(10, 10_000, 'Inner width in millimetres, 10 or more') widthMm: number;
  @Whole(10, 10_000, 'Inner height in millimetres, 10 or more') heightMm: number;
  @Whole(0, 1_000_000, 'What it weighs empty, in grams') tareG: number;
  @Whole(1, 5_000_000, 'How much it carries, in grams') mostG: number;
  @IsOptional() @Matches(PRICE, { message: 'A cost is a number of up to 6 decimal places' }) cost?: string;
  @Whole(0, 1_000_000, 'A whole number; 0 never says that few are left') lowAt: number;
  @IsOptional() @IsString() @Length(0, 60) sku: string | null;
  /** How many there are at a site; a site that is left out keeps what it has. */
  @IsArray() @ArrayMaxSize(200) @ValidateNested({ each: true }) @Type(() => EditBoxStockDto) stock: EditBoxStockDto[];
}
export class NewBoxDto extends EditBoxDto {
  @Matches(/^[A-Za-z0-9-]{1,12}$/, { message: 'A box code is 1 to 12 letters, digits and hyphens' }) code: string;
}
