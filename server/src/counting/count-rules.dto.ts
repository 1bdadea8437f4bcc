import { IsInt, IsOptional, IsString, Matches, Max, MaxLength, Min } from 'class-validator';

const DECIMAL = /^\d{1,9}(\.\d{1,6})?$/;
const PERCENT = /^\d{1,3}(\.\d{1,2})?$/;

export class CountLimitsDto {
  /** Days between counts. */
  @IsOptional() @IsInt() @Min(1) @Max(3650) intervalDays?: number | null;
  /** Base units that a line may be off by. */
  @IsOptional() @IsInt() @Min(0) @Max(10_000_000) units?: number | null;
  /** The same by what it comes to, decimal text in the home currency. */
  @IsOptional() @IsString() @Matches(DECIMAL, { message: 'An amount such as 5 or 2.50' }) value?: string | null;
  /** By per cent of the units that should be there. */
  @IsOptional() @IsString() @Matches(PERCENT, { message: 'Per cent, such as 2 or 0.5' }) unitsPercent?: string | null;
  /** By per cent of what all of the count should be worth. */
  @IsOptional() @IsString() @Matches(PERCENT, { message: 'Per cent, such as 2 or 0.5' }) valuePercent?: string | null;
}
export class KeepCountRuleDto extends CountLimitsDto {
  /** Of a class; absent for the company or an item. */
  @IsOptional() @IsString() @MaxLength(40) className?: string;
  /** Of an item; absent for the company or a class. */
  @IsOptional() @IsString() @MaxLength(40) sku?: string;
}
export class CountRuleDto extends CountLimitsDto {
  id: number;
  className: string | null;
  sku: string | null;
  item: string | null;
  version: number;
}
/** What a rule would have said of counts that are over. */
export class TriedRuleDto {
  lines: number;
  /** Lines within limits as they were then, and as they would be with the rule. */
  withinThen: number;
  withinNow: number;
  /** Lines that were looked at and would not be, and the other way about. */
  fewer: number;
  more: number;
}
