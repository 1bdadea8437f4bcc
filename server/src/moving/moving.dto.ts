import { ApiProperty } from '@nestjs/swagger';
import { CONDITIONS, type Condition } from '@vectrum/core/ledger';
import {
  type ConditionCommand,
  type IssueCommand,
  type MovableGoods,
  type MoveCommand,
  type MovedGoods,
  type MoveTask,
  type Purpose,
  PURPOSES,
} from '@vectrum/core/scan';
import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayMinSize, IsIn, IsInt, IsString, Max, MaxLength, Min, ValidateNested } from 'class-validator';
import { BundleDto, HowDto } from '../floor/index.js';

const MOST_UNITS = 10_000_000;
const MOST_GOODS = 500;

export class FromPlaceDto {
  id: number;
  code: string;
  kind: string;
  siteId: number;
}
export class MovableGoodsDto implements MovableGoods {
  itemId: number;
  lotId: number;
  lot: string | null;
  @ApiProperty({ enum: CONDITIONS }) condition: Condition;
  units: number;
  spare: number;
}
export class MoveTaskDto implements MoveTask {
  siteId: number;
  from: FromPlaceDto;
  goods: MovableGoodsDto[];
}
export class MoveBundleDto extends BundleDto {
  @ApiProperty({ enum: ['move'] }) kind: 'move';
  task: MoveTaskDto;
}
export class MovedGoodsDto implements MovedGoods {
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @ApiProperty({ enum: CONDITIONS }) @IsIn(CONDITIONS) condition: Condition;
  @IsInt() @Min(1) @Max(MOST_UNITS) units: number;
}
export class MoveCommandDto extends HowDto implements MoveCommand {
  @ApiProperty({ enum: ['move'] }) @IsIn(['move']) kind: 'move';
  @IsInt() fromPlaceId: number;
  @IsInt() toPlaceId: number;
  @ValidateNested({ each: true }) @Type(() => MovedGoodsDto) @ArrayMinSize(1) @ArrayMaxSize(MOST_GOODS) goods: MovedGoodsDto[];
}
class OfPlaceDto extends HowDto {
  @IsInt() placeId: number;
  @IsInt() itemId: number;
  @IsInt() @Min(0) lotId: number;
  @ApiProperty({ enum: CONDITIONS }) @IsIn(CONDITIONS) condition: Condition;
  @IsInt() @Min(1) @Max(MOST_UNITS) units: number;
  @IsString() @MaxLength(60) note: string;
}
export class IssueCommandDto extends OfPlaceDto implements IssueCommand {
  @ApiProperty({ enum: ['issue'] }) @IsIn(['issue']) kind: 'issue';
  @ApiProperty({ enum: PURPOSES }) @IsIn(PURPOSES) purpose: Purpose;
  @IsString() @MaxLength(20) costCentre: string;
}
export class ConditionCommandDto extends OfPlaceDto implements ConditionCommand {
  @ApiProperty({ enum: ['condition'] }) @IsIn(['condition']) kind: 'condition';
  @ApiProperty({ enum: CONDITIONS }) @IsIn(CONDITIONS) becomes: Condition;
}
