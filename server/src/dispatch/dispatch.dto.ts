import { ApiProperty } from '@nestjs/swagger';
import type { HandOverCommand, LoadCommand, LoadParcel, LoadTask, UnloadCommand } from '@vectrum/core/scan';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
} from 'class-validator';
import { BundleDto, FloorCommandDto, HowDto } from '../floor/index.js';

/** What a pen draws: absolute moves and lines, in whole units. */
const PEN = /^(?:[ML]\d{1,3} \d{1,3})+$/;
const MOST_PEN = 20_000;
export const MOST_PARCELS = 2000;

export class WaitingParcelDto {
  code: string;
  order: string;
  customer: string;
  siteId: number;
  state: string;
  carrier: string;
  carrierName: string;
  service: string | null;
  weightG: number | null;
  tracking: string | null;
  since: Date | null;
  promisedAt: Date;
  /** What the carrier said, where the label has not come. */
  trouble: string | null;
  /** Why its order must stay; null where it may go. */
  held: string | null;
  loaded: boolean;
  /** The van that it is meant for; null where the carrier has no set departures. */
  leavesAt: Date | null;
  /** The van that it was promised to catch has gone without it. */
  missed: boolean;
}
export class LaneDto {
  carrier: string;
  name: string;
  lane: string;
  siteId: number;
  timeZone: string;
  /** When the carrier's next van leaves the site, by its calendar; null where none is set. */
  collectsAt: Date | null;
  parcels: WaitingParcelDto[];
}
/** A closed parcel for which no carrier has been found. */
export class UnroutedParcelDto {
  code: string;
  order: string;
  customer: string;
  place: string;
  since: Date | null;
  promisedAt: Date;
  trouble: string | null;
}
/** An order in work whose promised van has gone. */
export class MissedOrderDto {
  code: string;
  customer: string;
  state: string;
  channel: string;
  siteId: number;
  promisedAt: Date;
  /** Its parcels that stand ready; null where it has none yet. */
  parcels: string | null;
  /** When it can leave now. */
  nextAt: Date | null;
}
export class DispatchTroubleDto {
  unrouted: UnroutedParcelDto[];
  missed: MissedOrderDto[];
}
export class HandOverDto {
  @IsString() @Length(1, 20) carrier: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Name at least one parcel' })
  @ArrayMaxSize(MOST_PARCELS)
  @IsString({ each: true })
  parcels: string[];
  /** Who takes them; absent where nobody signs on a screen. */
  @IsOptional() @IsString() @MaxLength(80) driver?: string;
}
export class HandedOverDto {
  code: string;
  parcels: number;
}
export class HandOverRowDto {
  code: string;
  carrier: string;
  at: Date;
  driver: string | null;
  person: string | null;
  parcels: number;
  signed: boolean;
}

export class HandOverPageDto {
  rows: HandOverRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}

export class LoadParcelDto implements LoadParcel {
  code: string;
  order: string;
  customer: string;
  tracking: string | null;
  labelled: boolean;
  held: string | null;
  loaded: boolean;
  leavesAt: string | null;
  missed: boolean;
}
export class LoadElsewhereDto {
  code: string;
  tracking: string | null;
  carrierName: string;
  lane: string;
}
export class LoadTaskDto implements LoadTask {
  siteId: number;
  carrier: string;
  carrierName: string;
  lane: string;
  van: string | null;
  parcels: LoadParcelDto[];
  elsewhere: LoadElsewhereDto[];
}
export class LoadBundleDto extends BundleDto {
  @ApiProperty({ enum: ['load'] }) kind: 'load';
  task: LoadTaskDto;
}
export class LoadCommandDto extends HowDto implements LoadCommand {
  @ApiProperty({ enum: ['load'] }) @IsIn(['load']) kind: 'load';
  @IsInt() siteId: number;
  @IsString() @Length(1, 20) carrier: string;
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(MOST_PARCELS) @IsString({ each: true }) parcels: string[];
  @IsBoolean() early: boolean;
}
export class UnloadCommandDto extends FloorCommandDto implements UnloadCommand {
  @ApiProperty({ enum: ['unload'] }) @IsIn(['unload']) kind: 'unload';
  @IsInt() siteId: number;
  @IsString() @Length(1, 20) carrier: string;
  @IsString() @Length(1, 30) parcel: string;
}
export class HandOverCommandDto extends FloorCommandDto implements HandOverCommand {
  @ApiProperty({ enum: ['hand-over'] }) @IsIn(['hand-over']) kind: 'hand-over';
  @IsInt() siteId: number;
  @IsString() @Length(1, 20) carrier: string;
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(MOST_PARCELS) @IsString({ each: true }) parcels: string[];
  @IsString() @Length(1, 80, { message: 'Write the driver’s name' }) driver: string;
  @IsOptional() @MaxLength(MOST_PEN) @Matches(PEN, { message: 'A signature is drawn by moves and lines' }) signature: string | null;
}
