import { ApiProperty } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsBoolean, IsInt, IsOptional, IsString, Length, Min, ValidateNested } from 'class-validator';

/** A bin that waiting orders would be picked from. */
export class BoardPlaceDto {
  id: number;
  code: string;
  zone: string;
  /** Metres on the plan; null where it is not drawn. */
  x: number | null;
  y: number | null;
}
export class BoardStopDto {
  placeId: number;
  itemId: number;
  units: number;
}
export class BoardLackDto {
  item: string;
  units: number;
  /** Where it lies: in reserve, to be refilled; at a dock or on a cart, to be put away; or neither, to be looked for. */
  @ApiProperty({ enum: ['reserve', 'standing', 'nowhere'] }) lies: 'reserve' | 'standing' | 'nowhere';
}
/** An order that waits to be sent to picking. */
export class BoardOrderDto {
  code: string;
  version: number;
  customer: string;
  channel: string;
  promisedAt: Date;
  /** The departure that it must catch. */
  leavesAt: Date;
  urgent: boolean;
  units: number;
  weightG: number;
  volumeMl: number;
  /** What it would be picked from as things lie now. */
  stops: BoardStopDto[];
  /** What no bin open to picking holds for it. */
  lacks: BoardLackDto[];
}
export class BoardVanDto {
  at: Date;
  name: string;
  carrier: string | null;
}
export class BoardPickerDto {
  /** What they take for a stop, in seconds, from the last fortnight; null while there is too little to tell. */
  secondsAStop: number | null;
  id: number;
  name: string;
  /** Whether they have done anything today. */
  here: boolean;
  /** What they have still to walk: the stops and units of rounds that are theirs. */
  stops: number;
  units: number;
}
export class BoardItemDto {
  id: number;
  sku: string;
  name: string;
}
/** All that is needed to decide what is picked next at a site. */
export class ReleaseBoardDto {
  siteId: number;
  /** Where walks begin and end. */
  table: { x: number; y: number };
  orders: BoardOrderDto[];
  /** How many wait in all; more than are listed where there are very many. */
  total: number;
  places: BoardPlaceDto[];
  items: BoardItemDto[];
  vans: BoardVanDto[];
  pickers: BoardPickerDto[];
  /** What a round holds, unless the page says otherwise. */
  roundOrders: number;
  /** Whether anybody walks rounds there; otherwise orders go to the packing table at once. */
  picks: boolean;
  /** The slots of the largest sorting wall of the site; nought where there is none, and nothing can be pooled. */
  wallSlots: number;
  roundKilos: number;
  roundLitres: number;
}

export class OrderToReleaseDto {
  @IsString() @Length(1, 20) code: string;
  @IsInt() @Min(1) version: number;
}
export class RoundToSendDto {
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(60) @ValidateNested({ each: true }) @Type(() => OrderToReleaseDto) orders: OrderToReleaseDto[];
  /** Who is to walk it; null where anybody may. */
  @IsOptional() @IsInt() sentTo: number | null;
  /** Picked for all of its orders together, and sorted at a wall afterwards. */
  @IsOptional() @IsBoolean() pooled?: boolean;
}
export class SendRoundsDto {
  @IsInt() siteId: number;
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(200) @ValidateNested({ each: true }) @Type(() => RoundToSendDto) rounds: RoundToSendDto[];
}
export class SentRoundsDto {
  rounds: string[];
}
export class PickerDto {
  id: number;
  name: string;
}
export class GiveStopDto {
  /** Who is to go there; null: whoever walks the round. */
  @IsOptional() @IsInt() personId: number | null;
}
export class SendRoundDto {
  @IsOptional() @IsInt() sentTo: number | null;
}
