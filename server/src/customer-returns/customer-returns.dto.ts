import { CAME_AS_NAMES, FATE_NAMES, REASON_NAMES, SETTLEMENTS, WISHES, type CameAs, type Fate, type ReturnReason, type ReturnState, type Settlement, type Wish } from '@vectrum/core/customer-returns'; // prettier-ignore
import type { ComeBackCommand, GoodsComingBack, ReturnTask } from '@vectrum/core/scan';
import { ApiProperty } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { BookPlaceDto, BundleDto, HowDto } from '../floor/index.js';

export class CustomerReturnRowDto {
  code: string;
  state: ReturnState;
  customer: string;
  /** Null where nobody knows the order. */
  order: string | null;
  channel: string | null;
  site: string;
  /** The first of the goods, in words, and how many lines there are in all. */
  goods: string;
  lines: number;
  wish: Wish | null;
  announcedAt: Date;
  settledAs: Settlement | null;
}
export class CustomerReturnPageDto {
  rows: CustomerReturnRowDto[];
  total: number;
}
export class CameBackDto {
  id: number;
  words: string;
  lot: string | null;
  number: string | null;
  cameAs: CameAs;
  fate: Fate;
  note: string;
  place: string;
  by: string;
  at: Date;
  undone: boolean;
  /** It was repaired, or not, and is with the customer again. */
  givenBack: boolean;
}
export class CustomerReturnLineDto {
  /** Of the order; absent where nobody knows it. */
  orderLine: number | null;
  sku: string;
  name: string;
  picture: string;
  /** What left, what is announced and what is back, in words; empty for none. */
  left: string;
  announced: string;
  back: string;
  /** The same in base units. */
  leftUnits: number;
  announcedUnits: number;
  backUnits: number;
  reason: ReturnReason | null;
  note: string;
  pieces: CameBackDto[];
}
export class ProposedSettlementDto {
  settlement: Settlement;
  why: string;
}
export class CustomerReturnDto extends CustomerReturnRowDto {
  siteId: number;
  email: string;
  toldBy: 'desk' | 'channel' | 'dock';
  channelRef: string | null;
  note: string;
  cameAt: Date | null;
  settledAt: Date | null;
  settledBy: string | null;
  settledWhy: string;
  amount: string | null;
  currency: string;
  exchangeOrder: string | null;
  credits: string[];
  wentWith: string | null;
  /** When the last parcel of the order left. */
  leftAt: Date | null;
  goodsBack: CustomerReturnLineDto[];
  pictures: number[];
  proposed: ProposedSettlementDto | null;
  /** What paying it back would come to, with tax; null where it would be nothing, or is decided. */
  refund: string | null;
  version: number;
}
/** A line of an order of which something can come back. */
export class ReturnableDto {
  orderLine: number;
  sku: string;
  name: string;
  picture: string;
  /** Base units that are with the customer, and in words. */
  units: number;
  words: string;
}
export class AnnounceLineDto {
  @IsInt() orderLine: number;
  @IsInt() @Min(1, { message: 'Say how many come back' }) @Max(1_000_000) units: number;
  @IsIn(REASON_NAMES, { message: 'Choose why they come back' }) reason: ReturnReason;
  @IsOptional() @IsString() @MaxLength(200) note?: string;
}
export class AnnounceReturnDto {
  @IsString() @Length(1, 20) order: string;
  @IsOptional() @IsIn(WISHES) wish?: Wish | null;
  @IsOptional() @IsString() @MaxLength(300) note?: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Choose what comes back' })
  @ArrayMaxSize(300)
  @ValidateNested({ each: true })
  @Type(() => AnnounceLineDto)
  lines: AnnounceLineDto[];
}
/** What a code at the dock may belong to. */
export class ReturnFoundDto {
  /** The return that is open already. */
  code: string | null;
  order: string | null;
  customer: string;
  /** What left with the order, or what was announced. */
  goods: string;
  leftAt: Date | null;
  /** Whether what was asked names it, rather than goods or a name that others have too. */
  named: boolean;
}
export class OpenReturnDto {
  @IsInt() siteId: number;
  /** The return that is open already, or the order that the goods came with; an item where nobody knows the order. */
  @IsOptional() @IsString() @MaxLength(20) code?: string;
  @IsOptional() @IsString() @MaxLength(20) order?: string;
  @IsOptional() @IsString() @MaxLength(40) sku?: string;
}
export class SettleReturnDto {
  @IsIn(SETTLEMENTS, { message: 'Choose what the customer gets' }) settlement: Settlement;
  @IsString() @Length(1, 200, { message: 'Say why' }) why: string;
  /** How repaired goods go back to the customer. */
  @IsOptional() @IsString() @MaxLength(120) wentWith?: string;
}
export class CallOffDto {
  @IsString() @Length(1, 200, { message: 'Say why nothing comes' }) why: string;
}
export class KeepInsteadDto {
  @IsIn(FATE_NAMES.filter((f) => f !== 'repair')) fate: Exclude<Fate, 'repair'>;
}
export class ReturnTallyRowDto {
  key: string;
  name: string;
  /** Base units that left and that came back in the span, and the share in per cent. */
  left: number;
  back: number;
  share: number;
  /** Of those that came back: for a fault of the goods, for one of ours or the carrier’s, and for the customer’s own reasons. */
  faulty: number;
  ours: number;
  theirs: number;
  returns: number;
}
export class ReturnTallyDto {
  rows: ReturnTallyRowDto[];
}
export class GoodsComingBackDto implements GoodsComingBack {
  @ApiProperty({ type: 'number', nullable: true }) orderLineId: number | null;
  itemId: number;
  announced: number;
  left: number;
  reason: ReturnReason;
  lots: LotComingBackDto[];
  numbers: string[];
}
export class LotComingBackDto {
  lot: string;
  left: number;
}
export class ReturnTaskDto implements ReturnTask {
  siteId: number;
  code: string;
  customer: string;
  order: string | null;
  wish: Wish | null;
  over: boolean;
  quarantine: BookPlaceDto | null;
  goods: GoodsComingBackDto[];
}
export class ComeBackBundleDto extends BundleDto {
  @ApiProperty({ enum: ['come-back'] }) kind: 'come-back';
  task: ReturnTaskDto;
}
export class ComeBackCommandDto extends HowDto implements ComeBackCommand {
  @ApiProperty({ enum: ['come-back'] }) @IsIn(['come-back']) kind: 'come-back';
  @IsString() @Length(1, 20) code: string;
  @ApiProperty({ type: 'number', nullable: true }) @IsOptional() @IsInt() orderLineId: number | null;
  @IsInt() itemId: number;
  @IsInt() @Min(1, { message: 'Say how many came back' }) @Max(1_000_000) units: number;
  @ApiProperty({ type: 'string', nullable: true }) @IsOptional() @IsString() @MaxLength(60) lot: string | null;
  @ApiProperty({ type: 'string', nullable: true }) @IsOptional() @IsString() @MaxLength(60) number: string | null;
  @IsIn(CAME_AS_NAMES) cameAs: CameAs;
  @IsIn(FATE_NAMES) fate: Fate;
  @IsString() @MaxLength(200) note: string;
}
