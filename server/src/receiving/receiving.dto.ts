import { Type } from 'class-transformer';
import { IsIn, IsInt, IsISO8601, IsOptional, IsString, Length, Max, MaxLength, Min } from 'class-validator';

export class HowDto {
  @IsIn(['scanned', 'typed']) how: 'scanned' | 'typed';
}
export class ReceiveDto extends HowDto {
  @IsInt() @Min(1) line: number;
  @IsInt() itemId: number;
  @IsInt() @Min(1) @Max(10_000_000) units: number;
  @IsOptional() @IsString() @Length(1, 20) lot?: string | null;
  @IsOptional() @IsISO8601({ strict: true }) @Length(10, 10) expires?: string | null;
  @IsInt() toPlaceId: number;
}
export class StoreDto extends HowDto {
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @IsInt() @Min(1) @Max(10_000_000) units: number;
  @IsInt() fromPlaceId: number;
  @IsInt() toPlaceId: number;
}
export class RefusedDto extends HowDto {
  @IsIn(['not-this', 'too-many', 'unknown']) band: 'not-this' | 'too-many' | 'unknown';
  @IsString() @MaxLength(150) title: string;
  @IsString() @MaxLength(280) detail: string;
  @IsString() @MaxLength(200) code: string;
  @IsOptional() @IsString() @MaxLength(40) document?: string;
  @IsOptional() @Type(() => Number) @IsInt() siteId?: number;
}
export class DueOrderDto {
  code: string;
  supplier: string;
  expectedOn: string | null;
  state: string;
  lines: number;
  linesIn: number;
}
/** The id of the tape's line, for an undo. */
export class PostedDto {
  activityId: number;
}
