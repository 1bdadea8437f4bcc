import { ApiProperty } from '@nestjs/swagger';
import type {
  GatherBin,
  GatherCommand,
  GatherLine,
  GatherParcel,
  GatherTask,
  GoodsOnRoad,
  SendOffCommand,
  ParcelHereCommand,
  ParcelOnRoad,
  TakeInCommand,
  TakeInCloseCommand,
  TakeInTask,
} from '@vectrum/core/scan';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO8601,
  IsOptional,
  IsString,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { TransferParcelDto } from './parcels.dto.js';
import { BundleDto, FloorCommandDto, HowDto } from '../floor/index.js';

export const TRANSFER_STATES = ['requested', 'gathering', 'on-the-road', 'arriving', 'received', 'cancelled'] as const;
export type TransferState = (typeof TRANSFER_STATES)[number];
/** Who answers for what was sent and did not come. */
export const OWES = ['carrier', 'sender', 'receiver', 'nobody'] as const;
export type Owes = (typeof OWES)[number];
const MOST_UNITS = 10_000_000;

export class TransferLineInputDto {
  @IsString() @MaxLength(40) sku: string;
  @IsInt() @Min(1) @Max(MOST_UNITS) units: number;
}
export class RequestTransferDto {
  @IsInt() fromSiteId: number;
  @IsInt() toSiteId: number;
  @IsOptional() @IsISO8601({ strict: true }) @Length(10, 10) expectedOn?: string | null;
  @IsString() @MaxLength(200) note: string;
  @ValidateNested({ each: true }) @Type(() => TransferLineInputDto) @ArrayMinSize(1) @ArrayMaxSize(500) lines: TransferLineInputDto[];
}
export class TransferRowDto {
  code: string;
  fromSite: string;
  toSite: string;
  @ApiProperty({ enum: TRANSFER_STATES }) state: TransferState;
  lines: number;
  units: number;
  /** Units that were sent and are neither in nor settled. */
  missing: number;
  expectedOn: string | null;
  madeBy: string | null;
  madeAt: Date;
  sentAt: Date | null;
}
export class TransferPageDto {
  rows: TransferRowDto[];
  total: number;
}
export class TransferLineDto {
  lineId: number;
  itemId: number;
  sku: string;
  item: string;
  picture: string;
  units: number;
  gathered: number;
  /** What may go from there now. */
  spare: number;
  /** What is free at the site that it goes to. */
  thereFree: number;
}
export class TransferGoodsDto {
  goodsId: number;
  itemId: number;
  sku: string;
  item: string;
  lot: string | null;
  sent: number;
  received: number;
  damaged: number;
  lost: number;
  missing: number;
  @ApiProperty({ enum: OWES, nullable: true }) owes: Owes | null;
  settledNote: string | null;
  /** Decimal text in the home currency; null where costs are not to be seen. */
  value: string | null;
}
export class TransferDto extends TransferRowDto {
  parcels: TransferParcelDto[];
  fromSiteId: number;
  toSiteId: number;
  note: string;
  carrier: string;
  tracking: string;
  sentBy: string | null;
  receivedAt: Date | null;
  version: number;
  lineRows: TransferLineDto[];
  goods: TransferGoodsDto[];
}
export class SendTransferDto {
  @IsString() @MaxLength(60) carrier: string;
  @IsString() @MaxLength(60) tracking: string;
}
export class SettleMissingDto {
  @IsInt() goodsId: number;
  @ApiProperty({ enum: OWES }) @IsIn(OWES) owes: Owes;
  /** They never left: back to the dock of the site that sent them. Otherwise they are lost. */
  @IsBoolean() neverLeft: boolean;
  @IsString() @MaxLength(200) note: string;
}
/** What one site has and another lacks. */
export class NeededDto {
  sku: string;
  item: string;
  units: number;
  /** What is free at the site that it would come from. */
  free: number;
  orders: number;
}
export class OpenTransferDto {
  code: string;
  @ApiProperty({ enum: ['gather', 'take-in'] }) kind: 'gather' | 'take-in';
  site: string;
  lines: number;
}
export class GatherBinDto implements GatherBin {
  placeId: number;
  code: string;
  lotId: number;
  lot: string | null;
  spare: number;
}
export class GatherLineDto implements GatherLine {
  lineId: number;
  itemId: number;
  units: number;
  gathered: number;
  bins: GatherBinDto[];
}
export class GatherParcelDto implements GatherParcel {
  code: string;
  carrier: string | null;
  isReady: boolean;
}
export class GatherTaskDto implements GatherTask {
  /** The parcels in which it goes, as the desk has packed them. */
  parcels: GatherParcelDto[];
  document: string;
  siteId: number;
  to: string;
  note: string;
  lines: GatherLineDto[];
}
export class GatherBundleDto extends BundleDto {
  @ApiProperty({ enum: ['gather'] }) kind: 'gather';
  task: GatherTaskDto;
}
export class GatherCommandDto extends HowDto implements GatherCommand {
  @ApiProperty({ enum: ['gather'] }) @IsIn(['gather']) kind: 'gather';
  @IsString() @MaxLength(20) document: string;
  @IsInt() lineId: number;
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @IsInt() placeId: number;
  @IsInt() @Min(1) @Max(MOST_UNITS) units: number;
}
export class SendOffCommandDto extends FloorCommandDto implements SendOffCommand {
  @ApiProperty({ enum: ['send-off'] }) @IsIn(['send-off']) kind: 'send-off';
  @IsString() @MaxLength(20) document: string;
  @IsString() @MaxLength(60) carrier: string;
  @IsString() @MaxLength(60) tracking: string;
}
export class GoodsOnRoadDto implements GoodsOnRoad {
  goodsId: number;
  itemId: number;
  lotId: number;
  lot: string | null;
  sent: number;
  received: number;
}
export class TakeInPlaceDto {
  id: number;
  code: string;
  kind: string;
  siteId: number;
}
export class ParcelOnRoadDto implements ParcelOnRoad {
  code: string;
  tracking: string | null;
  isHere: boolean;
}
export class TakeInTaskDto implements TakeInTask {
  document: string;
  siteId: number;
  from: string;
  dock: TakeInPlaceDto;
  @ApiProperty({ type: TakeInPlaceDto, nullable: true }) apart: TakeInPlaceDto | null;
  goods: GoodsOnRoadDto[];
  parcels: ParcelOnRoadDto[];
}
export class TakeInBundleDto extends BundleDto {
  @ApiProperty({ enum: ['take-in'] }) kind: 'take-in';
  task: TakeInTaskDto;
}
export class TakeInCommandDto extends HowDto implements TakeInCommand {
  @ApiProperty({ enum: ['take-in'] }) @IsIn(['take-in']) kind: 'take-in';
  @IsString() @MaxLength(20) document: string;
  @IsInt() goodsId: number;
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @IsInt() @Min(1) @Max(MOST_UNITS) units: number;
  @IsBoolean() isDamaged: boolean;
  @IsInt() toPlaceId: number;
}
export class ParcelHereCommandDto extends FloorCommandDto implements ParcelHereCommand {
  @ApiProperty({ enum: ['parcel-here'] }) @IsIn(['parcel-here']) kind: 'parcel-here';
  @IsString() @MaxLength(20) document: string;
  @IsString() @MaxLength(26) parcel: string;
}
export class TakeInCloseCommandDto extends FloorCommandDto implements TakeInCloseCommand {
  @ApiProperty({ enum: ['take-in-close'] }) @IsIn(['take-in-close']) kind: 'take-in-close';
  @IsString() @MaxLength(20) document: string;
}
