import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
  MinLength,
  ValidateIf,
} from 'class-validator';
import { DUTIES, type Duty } from './duties.js';

export class SignInDto {
  @IsString() @MaxLength(190) email: string;
  @IsString() @Length(1, 200) password: string;
}
export class BadgeSignInDto {
  @IsString() @Length(1, 40) badge: string;
  @Matches(/^\d{4,8}$/, { message: 'A PIN is 4 to 8 digits' }) pin: string;
}
export class SiteDto {
  id: number;
  code: string;
  name: string;
  timeZone: string;
}
/** What was asked to be changed of a person, until they or an owner have agreed. */
export class AskedChangeDto {
  email: string | null;
  duties: string[] | null;
  by: string;
}
export class MeDto {
  id: number;
  name: string;
  rights: string[];
  isOwner: boolean;
  sites: SiteDto[];
  seesCosts: boolean;
  email: string;
  badge: string | null;
  usualDuty: string | null;
  device: string | null;
  /** Where the device stands that somebody is signed in on; null where it is none of the house's. */
  deviceSiteId: number | null;
  /** How weights and lengths are shown. */
  units: string;
  /** What somebody asks to change of this person. */
  asked: AskedChangeDto | null;
  homeCurrency: string;
  /** Whether this house is one to try things in, where codes can be scanned without a scanner. */
  practice: boolean;
  /** Whether codes may be typed on the floor where they cannot be scanned. */
  typesCodes: boolean;
}
export class SignInHintDto {
  name: string;
  duty: string;
  email: string;
  password: string;
  badge: string;
  pin: string;
}
export class SignInPageDto {
  /** Where phones open this house over HTTPS; null where it is served so by something in front, or not at all. */
  phoneUrl: string | null;
  firstRun: boolean;
  deviceName: string | null;
  demo: SignInHintDto[];
}
export class NewEnrolmentDto {
  @IsInt() siteId: number;
  @IsString() @Length(1, 80) name: string;
}
export class EnrolmentDto {
  code: string;
}
export class EnrolDto {
  @IsString() @Length(1, 40) code: string;
}
export class DeviceDto {
  id: number;
  name: string;
  site: string;
  siteId: number;
  /** The printer that its labels come out of; null for the first of its site. */
  printerId: number | null;
  printer: string | null;
  enrolledAt: Date;
  revokedAt: Date | null;
  lastUsedAt: Date | null;
}
export class EditDeviceDto {
  /** What is not given stays as it is. */
  @IsOptional() @IsString() @Length(1, 80) name?: string;
  @IsOptional() @IsInt() printerId?: number | null;
}
export class AgreeDto {
  @IsBoolean() agree: boolean;
}
export class DoorMailDto {
  /** waiting, failing, done or let go. */
  state: string;
  why: string | null;
}
export class PersonDto {
  id: number;
  name: string;
  email: string;
  duties: string[];
  badge: string | null;
  sites: string;
  siteIds: number[];
  seesCosts: boolean;
  usualSiteId: number | null;
  usualDuty: string | null;
  /** `here`, `invited` or `left`. */
  state: string;
  /** How many devices they are signed in on. */
  sessions: number;
  lastAct: Date | null;
  asked: AskedChangeDto | null;
  hasPassword: boolean;
  hasPin: boolean;
  /** How the last link that was mailed to them fared; null where none was. */
  mail: DoorMailDto | null;
  version: number;
}
export class HandedLinkDto {
  link: string;
}
export class HandedPinDto {
  pin: string;
}
export class EditPersonDto {
  @IsString() @Length(1, 80) name: string;
  /** Empty for somebody of the floor who comes in by badge and PIN. */
  @ValidateIf((_, value) => value !== '')
  @IsEmail({}, { message: 'Type an e-mail address, like hattie@example.org, or leave it empty' })
  email: string;
  @IsArray() @ArrayMaxSize(11) @IsIn(DUTIES, { each: true }) duties: Duty[];
  @IsArray() @ArrayMaxSize(50) @IsInt({ each: true }) siteIds: number[];
  @IsBoolean() seesCosts: boolean;
  @IsOptional() @IsInt() usualSiteId?: number | null;
  @IsOptional() @IsIn(DUTIES) usualDuty?: Duty | null;
  @IsBoolean() active: boolean;
}
export class PersonIdDto {
  id: number;
}
export class DutyDto {
  duty: string;
  rights: string[];
  /** True where the company has changed it. */
  adjusted: boolean;
}
export class RightDto {
  right: string;
  says: string;
}
export class DutiesDto {
  rights: RightDto[];
  duties: DutyDto[];
}
export class AllowedDto {
  @IsBoolean() allowed: boolean;
}
export class AskResetDto {
  @IsString() @MaxLength(190) email: string;
}
export class TokenDto {
  @IsString() @Length(20, 100) token: string;
}
export class WhoseTokenDto {
  name: string;
  email: string;
  purpose: string;
}
export class ChooseDto extends TokenDto {
  /** Needed by who has a mail address; who has none signs in with badge and PIN. */
  @IsOptional() @IsString() @MinLength(10, { message: 'A password has at least 10 characters' }) @MaxLength(200) password?: string;
  @IsOptional() @Matches(/^\d{4,8}$/, { message: 'A PIN is 4 to 8 digits' }) pin?: string;
}
export class ChangeOwnDto {
  @IsString() @Length(1, 200) current: string;
  @IsOptional() @IsString() @MinLength(10, { message: 'A password has at least 10 characters' }) @MaxLength(200) password?: string;
  @IsOptional() @Matches(/^\d{4,8}$/, { message: 'A PIN is 4 to 8 digits' }) pin?: string;
}
export class PreferenceDto {
  @IsObject() value: Record<string, unknown>;
}
