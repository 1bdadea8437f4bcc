import { ApiProperty } from '@nestjs/swagger';
import type { RefillGoods, RefillTask, StandingGoods, StoreCommand, StoreTask } from '@vectrum/core/scan';
import { IsIn, IsInt, Max, Min } from 'class-validator';
import { BundleDto, HowDto } from '../floor/index.js';

export class WhereToDto {
  code: string;
  reason: string;
  units: number;
}
export class ThenDto {
  code: string;
  units: number;
}
export class StandingGoodsDto implements StandingGoods {
  itemId: number;
  lotId: number;
  lot: string | null;
  units: number;
  fromPlaceId: number;
  fromCode: string;
  suggestion: WhereToDto | null;
  then: ThenDto[];
}
export class StoreTaskDto implements StoreTask {
  siteId: number;
  goods: StandingGoodsDto[];
  metres: number;
}
export class RefillGoodsDto extends StandingGoodsDto implements RefillGoods {
  /** All that may be taken from there. */
  there: number;
  /** Orders that cannot be picked before. */
  orders: number;
  /** When the soonest of them leaves; null where only the pick face runs low. */
  @ApiProperty({ type: String, format: 'date-time', nullable: true }) leavesAt: string | null;
}
export class RefillTaskDto implements RefillTask {
  siteId: number;
  goods: RefillGoodsDto[];
  metres: number;
  /** Further goods to bring, once these are brought. */
  more: number;
}
export class RefillBundleDto extends BundleDto {
  @ApiProperty({ enum: ['refill'] }) kind: 'refill';
  task: RefillTaskDto;
}
export class StoreBundleDto extends BundleDto {
  @ApiProperty({ enum: ['store'] }) kind: 'store';
  task: StoreTaskDto;
}
export class StoreCommandDto extends HowDto implements StoreCommand {
  @ApiProperty({ enum: ['store'] }) @IsIn(['store']) kind: 'store';
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @IsInt() @Min(1) @Max(10_000_000) units: number;
  @IsInt() fromPlaceId: number;
  @IsInt() toPlaceId: number;
}
