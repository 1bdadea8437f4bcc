import { ApiProperty } from '@nestjs/swagger';
import type {
  CartCommand,
  HelpCommand,
  OtherLot,
  PickCart,
  PickCommand,
  PickOrder,
  PickStop,
  PickTask,
  SetDownCommand,
  ShortCommand,
  SpareGoods,
  TakeCommand,
  ToteCommand,
} from '@vectrum/core/scan';
import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsIn, IsInt, IsOptional, IsString, Length, Max, Min, ValidateNested } from 'class-validator';
import { BundleDto, FloorCommandDto, HowDto } from '../floor/index.js';

export class RoundOrderDto {
  code: string;
  customer: string;
  /** The totes that its goods are in. */
  totes: string[];
}
export class RoundRowDto {
  code: string;
  /** Its orders, the one that was promised soonest first. */
  orders: RoundOrderDto[];
  state: string;
  /** Whether its orders share totes and are sorted at a wall afterwards. */
  pooled: boolean;
  /** Of a pooled one, whether every order has all of its goods in its slot. */
  isSorted: boolean;
  picker: string | null;
  /** Who walks it, or to whom it was sent. */
  mine: boolean;
  /** Whom it was sent to; null where anybody may take it. */
  sentTo: string | null;
  /** One of its orders goes before others. */
  urgent: boolean;
  stops: number;
  stopsDone: number;
  units: number;
  metres: number;
  promisedAt: Date;
  /** The departure that it must catch, by the calendar of its site. */
  leavesAt: Date | null;
  createdAt: Date;
  shortStops: number;
}
export class RoundPageDto {
  rows: RoundRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}

export class OtherLotDto implements OtherLot {
  lotId: number;
  lot: string;
  units: number;
}
export class PickStopDto implements PickStop {
  id: number;
  orderId: number;
  itemId: number;
  lotId: number;
  lot: string | null;
  placeId: number;
  placeCode: string;
  units: number;
  picked: number;
  short: number;
  metres: number;
  /** Who goes there, where it is somebody else than whoever asks. */
  by?: string;
  /** Other lots of it that lie there too and are held for nobody. */
  others?: OtherLotDto[];
}
export class ToteSpareDto implements SpareGoods {
  itemId: number;
  units: number;
  code: string;
}
export class PickOrderDto implements PickOrder {
  id: number;
  code: string;
  customer: string;
  note: string | null;
  /** The totes that its goods go into, the one in use last. */
  toteIds: number[];
}
export class PickCartDto implements PickCart {
  placeId: number;
  /** The empty totes on it. */
  toteIds: number[];
  /** Why this round may not be walked with it. */
  taken?: string;
}
export class PickTaskDto implements PickTask {
  round: string;
  state: string;
  /** Who walks it. */
  picker: string | null;
  siteId: number;
  /** Whether its orders share totes and are sorted at a wall afterwards. */
  pooled: boolean;
  orders: PickOrderDto[];
  stops: PickStopDto[];
  busyToteIds: number[];
  /** The carts of the site. */
  carts: PickCartDto[];
  /** The cart that it is walked with. */
  cartId: number | null;
  /** Whether goods leave a bin only once its code was scanned. */
  mustScanBin: boolean;
  /** Whether, of several totes, the right one is scanned each time. */
  mustScanTote: boolean;
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
export class HelpCommandDto extends FloorCommandDto implements HelpCommand {
  @ApiProperty({ enum: ['help'] }) @IsIn(['help']) kind: 'help';
  @IsString() @Length(1, 20) round: string;
}
export class CartToteDto {
  @IsInt() orderId: number;
  @IsInt() totePlaceId: number;
}
export class CartCommandDto extends FloorCommandDto implements CartCommand {
  @ApiProperty({ enum: ['cart'] }) @IsIn(['cart']) kind: 'cart';
  @IsString() @Length(1, 20) round: string;
  @IsInt() cartPlaceId: number;
  /** The totes that were seen on it, each for an order that has none. */
  @IsArray() @ArrayMaxSize(60) @ValidateNested({ each: true }) @Type(() => CartToteDto) totes: CartToteDto[];
}
export class ToteCommandDto extends FloorCommandDto implements ToteCommand {
  @ApiProperty({ enum: ['tote'] }) @IsIn(['tote']) kind: 'tote';
  @IsString() @Length(1, 20) round: string;
  @IsInt() orderId: number;
  @IsInt() totePlaceId: number;
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
  /** Why another lot is taken than the one that was due. */
  @IsOptional() @IsString() @Length(1, 60) passedOver?: string;
}
export class ShortCommandDto extends FloorCommandDto implements ShortCommand {
  @ApiProperty({ enum: ['short'] }) @IsIn(['short']) kind: 'short';
  @IsString() @Length(1, 20) round: string;
  @IsInt() stopId: number;
  @IsInt() @Min(1) @Max(1_000_000) units: number;
  /** The units that somebody has seen there. */
  @IsInt() @Min(0) @Max(1_000_000) there: number;
}
export class SetDownCommandDto extends FloorCommandDto implements SetDownCommand {
  @ApiProperty({ enum: ['set-down'] }) @IsIn(['set-down']) kind: 'set-down';
  @IsString() @Length(1, 20) round: string;
  @IsInt() placeId: number;
}
