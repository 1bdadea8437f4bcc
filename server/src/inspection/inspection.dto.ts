import { CHECK_KINDS, type Check, type CheckKind, INSPECTION_KINDS, type InspectionKind } from '@vectrum/core/inspection';
import { type CheckCommand, type GoodsToInspect, type InspectTask, type JudgeCommand, VERDICTS, type Verdict } from '@vectrum/core/scan';
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
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { BookPlaceDto, BundleDto, FloorCommandDto, HowDto } from '../floor/index.js';

export class InspectionRowDto {
  code: string;
  site: string;
  arrival: string;
  supplier: string | null;
  sku: string;
  name: string;
  picture: string;
  /** What still waits, or all that came where none does. */
  words: string;
  why: string;
  openedAt: Date;
  closedAt: Date | null;
  passed: boolean | null;
}
export class InspectionPageDto {
  rows: InspectionRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class InspectionCheckDto implements Check {
  no: number;
  says: string;
  kind: CheckKind;
  unit: string;
  low: string | null;
  high: string | null;
  value: string | null;
  fulfilled: boolean | null;
  who: string | null;
}
export class WaitingGoodsDto {
  lotId: number;
  lot: string | null;
  placeId: number;
  place: string;
  units: number;
  words: string;
}
export class InspectionVerdictDto {
  at: Date;
  who: string;
  verdict: Verdict;
  words: string;
  lot: string | null;
  reason: string;
  returnCode: string | null;
  undone: boolean;
}
export class InspectionDto extends InspectionRowDto {
  itemId: number;
  checks: InspectionCheckDto[];
  waiting: WaitingGoodsDto[];
  verdicts: InspectionVerdictDto[];
}
export class CheckDto implements Check {
  no: number;
  says: string;
  kind: CheckKind;
  unit: string;
  low: string | null;
  high: string | null;
}
export class GoodsToInspectDto implements GoodsToInspect {
  inspection: string;
  itemId: number;
  lotId: number;
  lot: string | null;
  placeId: number;
  place: string;
  units: number;
  supplier: string;
  why: string;
  checks: CheckDto[];
  /** What was found so far, by the number of the check. */
  @ApiProperty({ type: 'object', additionalProperties: { type: 'string' } }) answers: Record<number, string>;
}
export class InspectTaskDto implements InspectTask {
  siteId: number;
  quarantine: BookPlaceDto | null;
  goods: GoodsToInspectDto[];
}
export class InspectBundleDto extends BundleDto {
  @ApiProperty({ enum: ['inspect'] }) kind: 'inspect';
  task: InspectTaskDto;
}
export class CheckCommandDto extends FloorCommandDto implements CheckCommand {
  @ApiProperty({ enum: ['check'] }) @IsIn(['check']) kind: 'check';
  @IsString() @Length(1, 20) inspection: string;
  @IsInt() @Min(1) no: number;
  @IsString() @Length(1, 120, { message: 'Answer the check' }) value: string;
}
export class JudgeCommandDto extends HowDto implements JudgeCommand {
  @ApiProperty({ enum: ['judge'] }) @IsIn(['judge']) kind: 'judge';
  @IsString() @Length(1, 20) inspection: string;
  @IsInt() @Min(0) lotId: number;
  @IsInt() placeId: number;
  @IsInt() @Min(1, { message: 'Say how many you judge' }) @Max(10_000_000) units: number;
  @IsIn(VERDICTS) verdict: Verdict;
  @IsString() @MaxLength(200) reason: string;
}

export class InspectionRuleDto {
  id: number;
  sku: string | null;
  item: string | null;
  supplierCode: string | null;
  supplier: string | null;
  kind: InspectionKind;
  n: number;
  checklistId: number | null;
  checklist: string | null;
  version: number;
}
export class WriteRuleDto {
  @IsOptional() @IsString() @MaxLength(40) sku?: string | null;
  @IsOptional() @IsString() @MaxLength(20) supplier?: string | null;
  @IsIn(INSPECTION_KINDS) kind: InspectionKind;
  @IsInt() @Min(1) @Max(100, { message: 'A number from 1 to 100' }) n: number;
  @IsOptional() @IsInt() checklistId?: number | null;
}

const DECIMAL = /^-?\d{1,9}(\.\d{1,6})?$/;
export class WriteCheckDto {
  @IsString() @Length(1, 120, { message: 'Say what is looked at' }) says: string;
  @IsIn(CHECK_KINDS) kind: CheckKind;
  @IsString() @MaxLength(12) unit: string;
  @IsOptional() @Matches(DECIMAL, { message: 'A bound is a number, such as 1.2' }) low?: string | null;
  @IsOptional() @Matches(DECIMAL, { message: 'A bound is a number, such as 1.4' }) high?: string | null;
}
export class WriteChecklistDto {
  @IsString() @Length(1, 60, { message: 'Give the checklist a name' }) name: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'A checklist has at least one check' })
  @ArrayMaxSize(30)
  @ValidateNested({ each: true })
  @Type(() => WriteCheckDto)
  checks: WriteCheckDto[];
}
export class ChecklistDto {
  id: number;
  name: string;
  version: number;
  /** Rules that use it. */
  uses: number;
  checks: WriteCheckDto[];
}
export class KeptDto {
  id: number;
}
