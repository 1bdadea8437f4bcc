import { IsInt, IsString, Length, Matches } from 'class-validator';

export class ScaleDto {
  id: number;
  name: string;
  siteId: number;
  site: string;
  address: string;
  version: number;
}
export class EditScaleDto {
  @IsString() @Length(1, 60) name: string;
  @IsInt() siteId: number;
  @Matches(/^[A-Za-z0-9.-]{1,100}:\d{1,5}$/, { message: 'A scale is reached by host and port, such as 192.0.2.30:4001' }) address: string;
}
export class ScaleIdDto {
  id: number;
}
export class ReadingDto {
  grams: number;
  /** Whether the weight has settled. */
  isSteady: boolean;
}
