import { ApiProperty } from '@nestjs/swagger';
import type { SortCommand, SortGoods, SortMissingCommand, SortOrder, SortTask, SpareGoods, WallSlot } from '@vectrum/core/scan';
import { IsIn, IsInt, IsString, Length, Max, Min } from 'class-validator';
import { BundleDto, FloorCommandDto, HowDto } from '../floor/index.js';

export class SortGoodsDto implements SortGoods {
  orderId: number;
  itemId: number;
  lotId: number;
  lot: string | null;
  toteId: number;
  tote: string;
  units: number;
}
export class SortOrderDto implements SortOrder {
  id: number;
  code: string;
  customer: string;
  /** Base units of it in the wall already. */
  sorted: number;
}
export class WallSlotDto implements WallSlot {
  placeId: number;
  code: string;
  number: number;
  orderId: number | null;
  busy: boolean;
}
export class WallDto {
  id: number;
  code: string;
  columns: number;
}
export class SortSpareDto implements SpareGoods {
  itemId: number;
  units: number;
  code: string;
}
export class SortTaskDto implements SortTask {
  round: string;
  siteId: number;
  wall: WallDto;
  slots: WallSlotDto[];
  orders: SortOrderDto[];
  goods: SortGoodsDto[];
  spare: SortSpareDto[];
}
export class SortBundleDto extends BundleDto {
  @ApiProperty({ enum: ['sort'] }) kind: 'sort';
  task: SortTaskDto;
}

export class SortCommandDto extends HowDto implements SortCommand {
  @ApiProperty({ enum: ['sort'] }) @IsIn(['sort']) kind: 'sort';
  @IsString() @Length(1, 20) round: string;
  @IsInt() orderId: number;
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @IsInt() @Min(1) @Max(1_000_000) units: number;
  @IsInt() fromPlaceId: number;
  @IsInt() slotPlaceId: number;
}
export class SortMissingCommandDto extends FloorCommandDto implements SortMissingCommand {
  @ApiProperty({ enum: ['sort-missing'] }) @IsIn(['sort-missing']) kind: 'sort-missing';
  @IsString() @Length(1, 20) round: string;
  @IsInt() orderId: number;
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @IsInt() @Min(1) @Max(1_000_000) units: number;
  @IsInt() fromPlaceId: number;
}
