import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
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
  MinLength,
  ValidateNested,
} from 'class-validator';

export class SetSettingDto {
  @IsString() @MaxLength(200) value: string;
}
export class CurrencyDto {
  @Matches(/^[A-Z]{3}$/, { message: 'A currency is three capital letters, such as EUR' }) code: string;
  /** How much of the home currency one is worth. */
  @Matches(/^(?!0+(\.0+)?$)\d{1,9}(\.\d{1,8})?$/, { message: 'A rate is a number above nought, such as 0.86' }) rate: string;
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'A date, such as 2026-05-14' }) asOf: string;
}
export class TaxRateDto {
  @Matches(/^[A-Za-z0-9-]{1,12}$/, { message: 'A tax code is 1 to 12 letters, digits and hyphens' }) code: string;
  @IsString() @Length(1, 40) name: string;
  @Matches(/^\d{1,3}(\.\d{1,3})?$/, { message: 'A rate is per cent, such as 20 or 5.5' }) percent: string;
}
export class MoneyDto {
  @IsArray() @ArrayMaxSize(40) @ValidateNested({ each: true }) @Type(() => CurrencyDto) currencies: CurrencyDto[];
  @IsArray() @ArrayMaxSize(20) @ValidateNested({ each: true }) @Type(() => TaxRateDto) taxRates: TaxRateDto[];
}
export class MoneyListsDto extends MoneyDto {
  version: number;
}
export class SiteDepartureDto {
  @IsString() @Length(1, 40) name: string;
  /** The carrier whose van it is, by its code; empty where it is nobody's. */
  @IsString() @MaxLength(20) carrier: string;
  /** Site time, such as 15:30. */
  @Matches(/^([01]\d|2[0-3]):[0-5]\d$/, { message: 'A time, such as 15:30' }) leavesAt: string;
  /** How long before it leaves an order must be in, to be promised for it. */
  @IsInt() @Min(0) @Max(720) closesMinutes: number;
}
export class SiteCalendarDto {
  siteId: number;
  site: string;
  timeZone: string;
  /** Monday to Sunday: Y for a working day. */
  workingDays: string;
  departures: SiteDepartureDto[];
  /** Whether anybody walks rounds there; otherwise goods are packed from the shelf. */
  picks: boolean;
  addressLine: string;
  city: string;
  postcode: string;
  /** Two letters, such as GB; empty where nobody has said. */
  country: string;
  version: number;
}
export class EditSiteCalendarDto {
  @Matches(/^(?=.*Y)[YN]{7}$/, { message: 'A site works on at least one day of the week' }) workingDays: string;
  @IsString() @MaxLength(40) timeZone: string;
  @IsArray() @ArrayMaxSize(12) @ValidateNested({ each: true }) @Type(() => SiteDepartureDto) departures: SiteDepartureDto[];
  /** Whether anybody walks rounds there; otherwise goods are packed from the shelf. Left as it is where it is not said. */
  @IsOptional() @IsBoolean() picks?: boolean;
  /** Where it is: carriers and suppliers are told. What is not said is left as it is. */
  @IsOptional() @IsString() @MaxLength(190) addressLine?: string;
  @IsOptional() @IsString() @MaxLength(80) city?: string;
  @IsOptional() @IsString() @MaxLength(20) postcode?: string;
  @IsOptional() @Matches(/^([A-Za-z]{2})?$/, { message: 'A country is two letters, such as GB' }) country?: string;
}
export class NewSiteDto {
  @Matches(/^[A-Za-z0-9]{2,12}$/, { message: 'A site code is 2 to 12 letters and digits' }) code: string;
  @IsString() @Length(1, 80) name: string;
}
export class SeriesDto {
  name: string;
  says: string;
  /** What the next one will be called. */
  next: string;
  number: number;
}
export class SetSeriesDto {
  @IsIn(['P', 'S', 'R', 'H']) name: 'P' | 'S' | 'R' | 'H';
  @IsInt() @Min(1) @Max(99_999_999) number: number;
}
export class FirstOwnerDto {
  @IsString() @Length(1, 80) name: string;
  @IsEmail({}, { message: 'Type an e-mail address, like hattie@example.org' }) email: string;
  @IsString()
  @MinLength(10, { message: 'A password has at least 10 characters' })
  @MaxLength(200)
  password: string;
  @IsString() @Length(1, 80) siteName: string;
  @Matches(/^[A-Za-z0-9]{2,12}$/, { message: 'A site code is 2 to 12 letters and digits' }) siteCode: string;
}
