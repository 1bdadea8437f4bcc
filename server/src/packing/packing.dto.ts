import { IsBoolean, IsInt, IsOptional, IsString, Length, Max, Min } from 'class-validator';
import { HowDto } from '../receiving/receiving.dto.js';

export class BenchRowDto {
  order: string;
  customer: string;
  tote: string | null;
  table: string | null;
  pieces: number;
  promisedAt: Date;
  note: boolean;
  since: Date | null;
}
export class CartonDto {
  code: string;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  tareG: number;
  mostG: number;
  /** How full the goods make it, in per cent of its volume; over 100 where they do not fit. */
  fill: number;
  proposed: boolean;
}
export class BenchDto {
  order: string;
  customer: string;
  channel: string;
  tote: string | null;
  promisedAt: Date;
  state: string;
  parcel: string;
  parcelState: string;
  cartons: CartonDto[];
  /** Expected weight of the goods without the box, in grams; null where a weight is not known. */
  goodsG: number | null;
  tracking: string | null;
  carrier: string | null;
}
export class ProveDto extends HowDto {
  @IsInt() @Min(1) line: number;
  @IsInt() @Min(1) @Max(1_000_000) units: number;
}
export class RateDto {
  carrier: string;
  carrierName: string;
  service: string;
  name: string;
  price: string;
  days: number;
}
export class RatesDto {
  rates: RateDto[];
  /** Carriers that did not answer, with what they said. */
  silent: string[];
}
export class LabelDto {
  @IsString() @Length(1, 12) carton: string;
  @IsInt() @Min(1) @Max(1_000_000) weightG: number;
  @IsString() @Length(1, 20) carrier: string;
  @IsString() @Length(1, 40) service: string;
  /** Set where a person has looked into the box and says the weight is right. */
  @IsOptional() @IsBoolean() weightSeen?: boolean;
}
