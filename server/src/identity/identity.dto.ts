import { IsEmail, IsInt, IsString, Length, Matches, MaxLength, MinLength } from 'class-validator';

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
}
export class MeDto {
  id: number;
  name: string;
  rights: string[];
  sites: SiteDto[];
  seesCosts: boolean;
  device: string | null;
}
export class DemoSignInDto {
  name: string;
  duty: string;
  email: string;
  password: string;
  badge: string;
  pin: string;
}
export class SignInPageDto {
  firstRun: boolean;
  deviceName: string | null;
  demo: DemoSignInDto[];
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
  enrolledAt: Date;
  revokedAt: Date | null;
}
export class PersonDto {
  id: number;
  name: string;
  email: string;
  duties: string[];
  badge: string | null;
  sites: string;
}
