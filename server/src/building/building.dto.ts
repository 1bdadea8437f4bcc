import { ApiProperty } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsInt,
  IsISO8601,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';

export const BUILD_STATES = ['planned', 'gathering', 'built', 'cancelled'] as const;
export type BuildState = (typeof BUILD_STATES)[number];
const MOST_UNITS = 1_000_000;

export class PlanBuildDto {
  @IsInt() siteId: number;
  @IsString() @MaxLength(40) sku: string;
  @IsInt() @Min(1) @Max(MOST_UNITS) units: number;
  @IsString() @MaxLength(200) note: string;
}
export class BuildRowDto {
  code: string;
  site: string;
  sku: string;
  item: string;
  @ApiProperty({ enum: BUILD_STATES }) state: BuildState;
  units: number;
  builtUnits: number;
  /** Whether something was taken apart rather than built. */
  isApart: boolean;
  madeBy: string | null;
  madeAt: Date;
}
export class BuildPageDto {
  rows: BuildRowDto[];
  total: number;
}
export class BuildPartDto {
  partId: number;
  itemId: number;
  sku: string;
  item: string;
  /** For all that is planned. */
  units: number;
  gathered: number;
  used: number;
  scrapped: number;
  /** Free at the site now. */
  free: number;
  /** Lots that were gathered or used. */
  lots: string[];
}
export class BuildDto extends BuildRowDto {
  siteId: number;
  itemId: number;
  tracking: string;
  note: string;
  version: number;
  builtBy: string | null;
  builtAt: Date | null;
  labourMinutes: number | null;
  /** Decimal text in the home currency; null where costs are not to be seen, or nothing is built yet. */
  labourCost: string | null;
  partsCost: string | null;
  unitCost: string | null;
  /** What labour for one is usually reckoned at; null where costs are not to be seen. */
  usualLabour: string | null;
  lots: string[];
  parts: BuildPartDto[];
}
export class BuildableDto {
  sku: string;
  item: string;
  site: string;
  siteId: number;
  /** So many can be built of what is free. */
  buildable: number;
  /** The part that allows no more, and when more of it comes. */
  scarce: string | null;
  scarceSku: string | null;
  expectedOn: string | null;
}
export class UsedPartDto {
  @IsInt() partId: number;
  /** Units that went into what was built, and units that were spoilt. What is left over goes back. */
  @IsInt() @Min(0) @Max(MOST_UNITS) used: number;
  @IsInt() @Min(0) @Max(MOST_UNITS) scrapped: number;
}
export class FinishBuildDto {
  @IsInt() @Min(1) @Max(MOST_UNITS) units: number;
  @IsString() @MaxLength(40) place: string;
  @IsOptional() @IsString() @MaxLength(20) lot?: string;
  @IsOptional() @IsISO8601({ strict: true }) @Length(10, 10) expires?: string;
  /** Numbers of the pieces, where each has one. */
  @IsOptional() @IsString({ each: true }) @MaxLength(20, { each: true }) @ArrayMaxSize(500) numbers?: string[];
  @IsOptional() @IsInt() @Min(0) @Max(1_000_000) labourMinutes?: number | null;
  /** What an hour costs, decimal text; absent for the labour that the item says. */
  @IsOptional() @IsString() @Matches(/^\d{1,7}(\.\d{1,4})?$/, { message: 'An amount such as 18 or 18.50' }) hourly?: string;
  @ValidateNested({ each: true }) @Type(() => UsedPartDto) @ArrayMaxSize(200) parts: UsedPartDto[];
}
export class TakeApartDto {
  @IsString() @MaxLength(40) place: string;
  @IsString() @MaxLength(40) sku: string;
  @IsOptional() @IsString() @MaxLength(40) lot?: string;
  @IsInt() @Min(1) @Max(MOST_UNITS) units: number;
  @IsString() @MaxLength(200) note: string;
}
