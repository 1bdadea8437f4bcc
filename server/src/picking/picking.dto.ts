import { ApiProperty } from '@nestjs/swagger';
import type { PickCommand, PickStop, PickTask, SetDownCommand, ShortCommand, TakeCommand, SpareGoods } from '@vectrum/core/scan';
import { IsIn, IsInt, IsString, Length, Max, Min } from 'class-validator';
import { BundleDto, FloorCommandDto, HowDto } from '../floor/index.js';

export class RoundRowDto {
  code: string;
  order: string;
  customer: string;
  state: string;
  picker: string | null;
  mine: boolean;
  /** Its order goes before others. */
  urgent: boolean;
  stops: number;
  stopsDone: number;
  units: number;
  metres: number;
  promisedAt: Date;
  /** The departure that it must catch, by the calendar of its site. */
  leavesAt: Date | null;
  tote: string | null;
  createdAt: Date;
  shortStops: number;
}
export class RoundPageDto {
  rows: RoundRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}

export class PickStopDto implements PickStop {
  id: number;
  itemId: number;
  lotId: number;
  lot: string | null;
  placeId: number;
  placeCode: string;
  units: number;
  picked: number;
  short: number;
  metres: number;
}
export class ToteSpareDto implements SpareGoods {
  itemId: number;
  units: number;
  code: string;
}
export class PickTaskDto implements PickTask {
  round: string;
  state: string;
  order: string;
  customer: string;
  siteId: number;
  note: string | null;
  stops: PickStopDto[];
  toteId: number | null;
  busyToteIds: number[];
  /** Whether goods leave a bin only once its code was scanned. */
  mustScanBin: boolean;
  /** Whether each piece is scanned and no number keyed. */
  scansEach: boolean;
  /** What lies in its totes and is wanted no longer: to be put away. */
  spare: ToteSpareDto[];
}
export class PickBundleDto extends BundleDto {
  @ApiProperty({ enum: ['pick'] }) kind: 'pick';
  task: PickTaskDto;
}

export class TakeCommandDto extends FloorCommandDto implements TakeCommand {
  @ApiProperty({ enum: ['take'] }) @IsIn(['take']) kind: 'take';
  @IsString() @Length(1, 20) round: string;
}
export class PickCommandDto extends HowDto implements PickCommand {
  @ApiProperty({ enum: ['pick'] }) @IsIn(['pick']) kind: 'pick';
  @IsString() @Length(1, 20) round: string;
  @IsInt() stopId: number;
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @IsInt() fromPlaceId: number;
  @IsInt() @Min(1) @Max(1_000_000) units: number;
  @IsInt() totePlaceId: number;
}
export class ShortCommandDto extends FloorCommandDto implements ShortCommand {
  @ApiProperty({ enum: ['short'] }) @IsIn(['short']) kind: 'short';
  @IsString() @Length(1, 20) round: string;
  @IsInt() stopId: number;
  @IsInt() @Min(1) @Max(1_000_000) units: number;
}
export class SetDownCommandDto extends FloorCommandDto implements SetDownCommand {
  @ApiProperty({ enum: ['set-down'] }) @IsIn(['set-down']) kind: 'set-down';
  @IsString() @Length(1, 20) round: string;
  @IsInt() placeId: number;
}
