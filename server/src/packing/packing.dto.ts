import { ApiProperty } from '@nestjs/swagger';
import type {
  CloseParcelCommand,
  LeaveOutCommand,
  NoteSeenCommand,
  OpenParcelCommand,
  PackAllCommand,
  PackCommand,
  PackKit,
  PackKitCommand,
  PackLine,
  PackParcel,
  PackTask,
  ParkCommand,
  RepackCommand,
  SerialOutCommand,
  SpareGoods,
} from '@vectrum/core/scan';
import { Type } from 'class-transformer';
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
  Max,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { BundleDto, FloorCommandDto, HowDto } from '../floor/index.js';

export class BenchRowDto {
  order: string;
  customer: string;
  tote: string | null;
  table: string | null;
  pieces: number;
  promisedAt: Date;
  /** The departure that it must catch, by the calendar of its site. */
  leavesAt: Date | null;
  note: boolean;
  /** Why it waits at the table, where somebody has parked it. */
  parked: string | null;
  since: Date | null;
}
export class BenchPageDto {
  rows: BenchRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class SingleLineDto {
  /** Null where no such order waits. */
  order: string | null;
}
export class CartonDto {
  code: string;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  tareG: number;
  mostG: number;
  /** What it costs, in thousandths of the dearest of them. */
  costShare: number;
  /** What one costs; absent for who may not see costs. */
  cost?: string;
  /** How many are left at the site; null where nobody has counted them. */
  left: number | null;
}
export class BenchParcelDto {
  number: number;
  code: string;
  state: string;
  tracking: string | null;
  carrier: string | null;
  weightG: number | null;
  carton: string | null;
  /** Why its label could not be had yet; null where nothing is against it. */
  problem: string | null;
  /** How far its label has come on paper; null where it has none. */
  @ApiProperty({ enum: ['waiting', 'failing', 'done'], nullable: true }) print: 'waiting' | 'failing' | 'done' | null;
  /** Why it could not be printed yet. */
  printProblem: string | null;
}
export class PackedLineDto {
  line: number;
  units: number;
}
export class PackParcelDto implements PackParcel {
  number: number;
  code: string;
  open: boolean;
  contents: PackedLineDto[];
}
export class PackLineDto implements PackLine {
  line: number;
  itemId: number;
  picked: number;
  packed: number;
  unitG: number | null;
  unitMl: number | null;
  /** The bins that it is taken out of, where it was not picked into a tote. */
  shelf: string | null;
  /** All that is left of it was scanned at its bins, and the house trusts that. */
  trusted: boolean;
  /** The longest side of one base unit, in millimetres; null where it is not known. */
  longestMm: number | null;
  /** Length, width and height of one base unit, in millimetres; null where they are not known. */
  @ApiProperty({ type: [Number], nullable: true }) sizeMm: [number, number, number] | null;
  keepUpright: boolean;
  fragile: boolean;
  /** It never holds up its order, and may be left out. */
  insert: boolean;
}
export class PackKitPartDto {
  line: number;
  each: number;
}
export class PackKitDto implements PackKit {
  line: number;
  itemId: number;
  parts: PackKitPartDto[];
}
/** What a packing table needs: the task itself, and what stands around it. */
export class SpareDto implements SpareGoods {
  itemId: number;
  units: number;
  code: string;
}
export class PackedSerialDto {
  line: number;
  parcel: number;
  serial: string;
}
export class PackTaskDto implements PackTask {
  serials: PackedSerialDto[];
  /** What the order wants no longer: to be taken out and put away. */
  spare: SpareDto[];
  order: string;
  customer: string;
  lines: PackLineDto[];
  /** What was ordered as a kit, and the lines of its parts. */
  kits: PackKitDto[];
  note: string | null;
  noteSeen: boolean;
  /** The badge by which the note is to be acknowledged; null where a key or a card will do. */
  noteBadge: string | null;
  parcels: PackParcelDto[];
  channel: string;
  tote: string | null;
  promisedAt: Date;
  /** The departure that it must catch, by the calendar of its site. */
  leavesAt: Date | null;
  state: string;
  /** All parcels of the order, those that have left too. */
  allParcels: BenchParcelDto[];
  cartons: CartonDto[];
  /** How far a weight may be from what is expected, in per cent and grams: the larger holds. */
  weightPercent: number;
  weightGrams: number;
  /** Whether the label is asked for once all is in and the scale agrees. */
  labelsByThemselves: boolean;
  /** Whether a picture of each parcel is wanted. */
  wantsPictures: boolean;
}
export class PackBundleDto extends BundleDto {
  @ApiProperty({ enum: ['pack'] }) kind: 'pack';
  task: PackTaskDto;
}

export class PackCommandDto extends HowDto implements PackCommand {
  @ApiProperty({ enum: ['pack'] }) @IsIn(['pack']) kind: 'pack';
  @IsString() @Length(1, 20) order: string;
  @IsInt() @Min(1) @Max(99) parcel: number;
  @IsInt() @Min(1) line: number;
  @IsInt() @Min(1) @Max(1_000_000) units: number;
  @IsOptional() @IsString() @Length(1, 60) serial?: string;
}
export class PackedLineOfDto {
  @IsInt() @Min(1) line: number;
  @IsInt() @Min(1) @Max(1_000_000) units: number;
}
export class PackAllCommandDto extends FloorCommandDto implements PackAllCommand {
  @ApiProperty({ enum: ['pack-all'] }) @IsIn(['pack-all']) kind: 'pack-all';
  @IsString() @Length(1, 20) order: string;
  @IsInt() @Min(1) @Max(99) parcel: number;
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(500) @ValidateNested({ each: true }) @Type(() => PackedLineOfDto) lines: PackedLineOfDto[];
}
export class PackKitCommandDto extends HowDto implements PackKitCommand {
  @ApiProperty({ enum: ['pack-kit'] }) @IsIn(['pack-kit']) kind: 'pack-kit';
  @IsString() @Length(1, 20) order: string;
  @IsInt() @Min(1) @Max(99) parcel: number;
  @IsInt() @Min(1) kit: number;
  @IsInt() @Min(1) @Max(1_000_000) kits: number;
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(500) @ValidateNested({ each: true }) @Type(() => PackedLineOfDto) lines: PackedLineOfDto[];
}
export class LeaveOutCommandDto extends FloorCommandDto implements LeaveOutCommand {
  @ApiProperty({ enum: ['leave-out'] }) @IsIn(['leave-out']) kind: 'leave-out';
  @IsString() @Length(1, 20) order: string;
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(500) @ValidateNested({ each: true }) @Type(() => PackedLineOfDto) lines: PackedLineOfDto[];
}
export class NoteSeenCommandDto extends FloorCommandDto implements NoteSeenCommand {
  @ApiProperty({ enum: ['note-seen'] }) @IsIn(['note-seen']) kind: 'note-seen';
  @IsString() @Length(1, 20) order: string;
  @IsOptional() @IsString() @Length(1, 20) badge?: string;
}
export class ChosenServiceDto {
  @IsString() @Length(1, 20) carrier: string;
  @IsString() @Length(1, 40) code: string;
}
export class CloseParcelCommandDto extends FloorCommandDto implements CloseParcelCommand {
  @ApiProperty({ enum: ['close-parcel'] }) @IsIn(['close-parcel']) kind: 'close-parcel';
  @IsString() @Length(1, 20) order: string;
  @IsInt() @Min(1) @Max(99) parcel: number;
  @IsString() @Length(1, 12) carton: string;
  @IsInt() @Min(1) @Max(1_000_000) weightG: number;
  /** Null leaves it to the cheapest service that takes the parcel. */
  @ValidateIf((_, value) => value !== null) @ValidateNested() @Type(() => ChosenServiceDto) service: ChosenServiceDto | null;
  /** Set where a person has looked into the box and says the weight is right. */
  @IsBoolean() weightSeen: boolean;
  /** Why it is right. */
  @IsOptional() @IsString() @Length(1, 80) weightWhy?: string;
  /** The rest goes into another parcel. */
  @IsOptional() @IsBoolean() more?: boolean;
}
export class OpenParcelCommandDto extends FloorCommandDto implements OpenParcelCommand {
  @ApiProperty({ enum: ['open-parcel'] }) @IsIn(['open-parcel']) kind: 'open-parcel';
  @IsString() @Length(1, 20) order: string;
  @IsInt() @Min(1) @Max(99) parcel: number;
}
export class RepackCommandDto extends HowDto implements RepackCommand {
  @ApiProperty({ enum: ['repack'] }) @IsIn(['repack']) kind: 'repack';
  @IsString() @Length(1, 20) order: string;
  @IsInt() @Min(1) @Max(99) from: number;
  @IsInt() @Min(1) @Max(99) to: number;
  @IsInt() @Min(1) line: number;
  @IsInt() @Min(1) @Max(1_000_000) units: number;
  @IsOptional() @IsString() @Length(1, 60) serial?: string;
}
export class SerialOutCommandDto extends FloorCommandDto implements SerialOutCommand {
  @ApiProperty({ enum: ['serial-out'] }) @IsIn(['serial-out']) kind: 'serial-out';
  @IsString() @Length(1, 20) order: string;
  @IsInt() @Min(1) line: number;
  @IsString() @Length(1, 60) serial: string;
}
export class ParkCommandDto extends FloorCommandDto implements ParkCommand {
  @ApiProperty({ enum: ['park'] }) @IsIn(['park']) kind: 'park';
  @IsString() @Length(1, 20) order: string;
  @IsString() @Length(0, 80) why: string;
}

/** A service as it is proposed for an order. */
/** The number on a carrier's own paper. */
export class TypedNumberDto {
  @Matches(/^[A-Z0-9][A-Z0-9./ -]{2,58}$/, { message: 'The number on the carrier’s paper: capitals and figures' }) tracking: string;
}
/** The service that a parcel is to leave by; null for the cheapest. */
export class SendByDto {
  @ValidateIf((_, value) => value !== null) @ValidateNested() @Type(() => ChosenServiceDto) service: ChosenServiceDto | null;
}
