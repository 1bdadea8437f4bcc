import { ApiProperty } from '@nestjs/swagger';
import type { TallyBin, TallyBinCommand, TallyCodeCommand, TallyCommand, TallyLine, TallyTask } from '@vectrum/core/scan';
import { IsBoolean, IsIn, IsInt, IsISO8601, IsString, Length, Max, MaxLength, Min, ValidateIf } from 'class-validator';
import { BundleDto, HowDto } from '../floor/index.js';

export class TallyLineDto implements TallyLine {
  itemId: number;
  lotId: number;
  lot: string | null;
  isDamaged: boolean;
  counted: number | null;
  booked: number | null;
}
export class TallyBinDto implements TallyBin {
  placeId: number;
  code: string;
  area: string;
  @ApiProperty({ enum: ['open', 'begun', 'counted'] }) state: 'open' | 'begun' | 'counted';
  by: string | null;
  isMine: boolean;
  lines: TallyLineDto[];
}
export class TallyTaskDto implements TallyTask {
  document: string;
  siteId: number;
  title: string;
  wholeBins: boolean;
  scanEach: boolean;
  bins: TallyBinDto[];
  metres: number;
}
export class TallyBundleDto extends BundleDto {
  @ApiProperty({ enum: ['tally'] }) kind: 'tally';
  task: TallyTaskDto;
}
class OfCountDto extends HowDto {
  @IsString() @MaxLength(20) document: string;
  @IsInt() placeId: number;
}
/** A day: longer would be no look but a memory. */
const MOST_AGO_MS = 86_400_000;

export class TallyCommandDto extends OfCountDto implements TallyCommand {
  @ApiProperty({ enum: ['tally'] }) @IsIn(['tally']) kind: 'tally';
  @IsInt() itemId: number;
  @ValidateIf((c: TallyCommandDto) => c.lot !== null) @IsString() @MaxLength(40) lot: string | null;
  @ValidateIf((c: TallyCommandDto) => c.expires !== null) @IsISO8601({ strict: true }) @Length(10, 10) expires: string | null;
  @IsBoolean() isDamaged: boolean;
  @IsInt() @Min(0) @Max(10_000_000) units: number;
  @IsBoolean() isLast: boolean;
  @IsInt() @Min(0) @Max(MOST_AGO_MS) agoMs: number;
}
export class TallyBinCommandDto extends OfCountDto implements TallyBinCommand {
  @ApiProperty({ enum: ['tally-bin'] }) @IsIn(['tally-bin']) kind: 'tally-bin';
}
export class TallyCodeCommandDto extends OfCountDto implements TallyCodeCommand {
  @ApiProperty({ enum: ['tally-code'] }) @IsIn(['tally-code']) kind: 'tally-code';
  @IsString() @MaxLength(120) code: string;
  @IsInt() @Min(1) @Max(10_000_000) units: number;
}
/** A count that is open, as the phone's list of tasks shows it. */
export class OpenTallyDto {
  code: string;
  title: string;
  /** Bins that this person may still count. */
  bins: number;
}
