import { ApiProperty } from '@nestjs/swagger';
import type { CountSpotCommand, ReportSpotCommand, Spot, SpotTask } from '@vectrum/core/scan';
import { IsIn, IsInt, IsOptional, IsString, Max, MaxLength, Min, MinLength } from 'class-validator';
import { BundleDto, HowDto } from '../floor/index.js';

export class SpotDto implements Spot {
  id: number;
  itemId: number;
  lotId: number;
  lot: string | null;
  placeId: number;
  placeCode: string;
  /** Why it is counted, and who has said so. */
  why: string;
  by: string;
  /** Whether this person has said so: somebody else's eyes are worth more. */
  isOwn: boolean;
}
export class SpotTaskDto implements SpotTask {
  siteId: number;
  spots: SpotDto[];
  metres: number;
}
export class SpotBundleDto extends BundleDto {
  @ApiProperty({ enum: ['count'] }) kind: 'count';
  task: SpotTaskDto;
}
export class CountSpotCommandDto extends HowDto implements CountSpotCommand {
  @ApiProperty({ enum: ['count-spot'] }) @IsIn(['count-spot']) kind: 'count-spot';
  @IsInt() spotId: number;
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @IsInt() placeId: number;
  @IsInt() @Min(0) @Max(10_000_000) units: number;
}
export class ReportSpotCommandDto extends HowDto implements ReportSpotCommand {
  @ApiProperty({ enum: ['report-spot'] }) @IsIn(['report-spot']) kind: 'report-spot';
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @IsInt() placeId: number;
  @IsInt() @Min(0) @Max(10_000_000) there: number;
}
/** A bin that is counted, as the office sees it. */
export class SpotCountDto {
  id: number;
  @ApiProperty({ enum: ['open', 'counted'] }) state: 'open' | 'counted';
  place: string;
  itemId: number;
  sku: string;
  item: string;
  lot: string | null;
  why: string;
  /** The round on which it was seen, where it was on one. */
  document: string | null;
  raisedBy: string | null;
  raisedAt: Date;
  /** Units that are held until it is decided. */
  held: number;
  /** What somebody has counted there; null until then. */
  counted: number | null;
  /** What the books had there then. */
  booked: number | null;
  countedBy: string | null;
  countedAt: Date | null;
  /** The act that has a picture of what was counted; null where there is none. */
  picture: string | null;
  version: number;
}
export class CountUnitsDto {
  @IsInt({ message: 'A count is a whole number of units' }) @Min(0) @Max(10_000_000) units: number;
}
/** How many of goods lie in a place, said without a count. */
export class CorrectStockDto {
  @IsString() @MaxLength(40) place: string;
  @IsString() @MaxLength(40) sku: string;
  @IsOptional() @IsString() @MaxLength(40) lot?: string;
  @IsInt({ message: 'A count is a whole number of units' }) @Min(0) @Max(10_000_000) units: number;
  @IsString() @MinLength(2, { message: 'Say why the number was wrong' }) @MaxLength(60) reason: string;
}
export class CorrectedDto {
  /** Whether the books follow already; otherwise somebody else decides. */
  isBooked: boolean;
  says: string;
  /** Its line of the tape, to which a picture may be added. */
  activityId: number | null;
}
