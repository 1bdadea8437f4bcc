import { ApiProperty } from '@nestjs/swagger';
import type {
  AnnouncedPallet,
  ApartReason,
  CloseArrivalCommand,
  ReceiveAs,
  ReceiveCommand,
  ReceiveLine,
  OtherDelivery,
  ReceivePalletCommand,
  ReceiveTask,
  ReceiveWholeCommand,
  TieCommand,
} from '@vectrum/core/scan';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsIn,
  IsInt,
  IsISO8601,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { BookPlaceDto, BundleDto, FloorCommandDto, HowDto } from '../floor/index.js';

/** A line that has come in part or not yet, as the phone reads it. */
export class ReceiveLineDto implements ReceiveLine {
  lineId: number;
  order: string;
  line: number;
  itemId: number;
  packId: number;
  ordered: number;
  received: number;
}
export class PalletGoodsDto {
  lineId: number | null;
  itemId: number;
  units: number;
  lot: string | null;
  expires: string | null;
}
export class PalletDto implements AnnouncedPallet {
  sscc: string;
  contents: PalletGoodsDto[];
  received: boolean;
}
export class OtherDeliveryDto implements OtherDelivery {
  code: string;
  supplier: string;
  /** Codes that lead to it beside its own: of the orders that it holds and of its pallets. */
  also: string[];
}
export class WholeRuleDto {
  /** Whether this person may book in what is left as it stands on the paper. */
  may: boolean;
  /** How many lines must be counted before that. */
  sample: number;
}
export class ReceiveTaskDto implements ReceiveTask {
  document: string;
  supplier: string;
  overPercent: number;
  fillRemaining: boolean;
  /** Whether the scan of other goods books in those counted before it. */
  nextBooks: boolean;
  dock: BookPlaceDto;
  apart: BookPlaceDto | null;
  inspection: BookPlaceDto | null;
  /** Why goods must be looked at, by item. */
  @ApiProperty({ type: 'object', additionalProperties: { type: 'string' } }) inspect: Record<number, string>;
  mayTake: boolean;
  lines: ReceiveLineDto[];
  pallets: PalletDto[];
  serials: string[];
  others: OtherDeliveryDto[];
  whole: WholeRuleDto;
}
export class ReceiveBundleDto extends BundleDto {
  @ApiProperty({ enum: ['receive'] }) kind: 'receive';
  task: ReceiveTaskDto;
}

export class ReceiveCommandDto extends HowDto implements ReceiveCommand {
  @ApiProperty({ enum: ['receive'] }) @IsIn(['receive']) kind: 'receive';
  @IsString() @Length(1, 20) document: string;
  /** The line of an order that the goods are for; null where no line is meant. */
  @ValidateIf((_, value) => value !== null) @IsInt() @Min(1) lineId: number | null;
  @IsInt() itemId: number;
  @IsInt() @Min(1) @Max(10_000_000) units: number;
  @ValidateIf((_, value) => value !== null) @IsString() @Length(1, 20) lot: string | null;
  @ValidateIf((_, value) => value !== null) @IsISO8601({ strict: true }) @Length(10, 10) expires: string | null;
  @IsInt() toPlaceId: number;
  @IsIn(['ordered', 'extra', 'unordered', 'apart']) as: ReceiveAs;
  @IsIn(['good', 'damaged']) condition: 'good' | 'damaged';
  @ValidateIf((_, value) => value !== null) @IsIn(['wrong goods', 'too many', 'too old']) reason: ApartReason | null;
}
export class ReceivePalletCommandDto extends HowDto implements ReceivePalletCommand {
  @ApiProperty({ enum: ['receive-pallet'] }) @IsIn(['receive-pallet']) kind: 'receive-pallet';
  @IsString() @Length(1, 20) document: string;
  @Matches(/^\d{18}$/, { message: 'A pallet code is 18 digits' }) sscc: string;
  @IsInt() toPlaceId: number;
}
export class WholeLineDto {
  @IsInt() @Min(1) lineId: number;
  @IsInt() @Min(1) @Max(10_000_000) units: number;
}
export class ReceiveWholeCommandDto extends HowDto implements ReceiveWholeCommand {
  @ApiProperty({ enum: ['receive-whole'] }) @IsIn(['receive-whole']) kind: 'receive-whole';
  @IsString() @Length(1, 20) document: string;
  /** What the phone showed: each line with what is left of it. */
  @ValidateNested({ each: true }) @Type(() => WholeLineDto) @ArrayMinSize(1) @ArrayMaxSize(2_000) lines: WholeLineDto[];
  @IsInt() toPlaceId: number;
}
export class TieCommandDto extends FloorCommandDto implements TieCommand {
  @ApiProperty({ enum: ['tie'] }) @IsIn(['tie']) kind: 'tie';
  @IsString() @Length(1, 60) code: string;
  @IsInt() itemId: number;
  @IsInt() packId: number;
}
export class CloseArrivalCommandDto extends FloorCommandDto implements CloseArrivalCommand {
  @ApiProperty({ enum: ['close-arrival'] }) @IsIn(['close-arrival']) kind: 'close-arrival';
  @IsString() @Length(1, 20) document: string;
  /** The number on the supplier's delivery paper; empty where there is none. */
  @IsString() @MaxLength(60) paper: string;
}
export class NewArrivalDto {
  @IsInt() siteId: number;
  @IsOptional() @IsString() @Length(2, 20) supplier?: string | null;
}
export class DueDto {
  /** An order, or an arrival with lines of one order or several. */
  code: string;
  kind: 'order' | 'arrival';
  supplier: string;
  expectedOn: string | null;
  late: boolean;
  /** The dock it comes to; null for whichever is free. */
  door: string | null;
  /** Since when goods of it stand at the door; null where nothing has come. */
  since: Date | null;
  lines: number;
  linesIn: number;
  pallets: number;
}
export class FindDueDto {
  /** What the code opens; null where it is several or none. */
  opens: string | null;
  choices: DueDto[];
}
export class TakenDocumentDto {
  /** OrderResponse or DespatchAdvice. */
  kind: string;
  /** The order that was answered, or the arrival that was announced. */
  code: string;
  says: string;
}
