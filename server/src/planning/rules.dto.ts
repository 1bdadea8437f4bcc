import { IsBoolean, IsInt, IsOptional, IsString, Length, Matches, Max, MaxLength, Min } from 'class-validator';

const PERCENT = /^\d{2}(\.\d{1,2})?$/;
const WEEK = /^20\d{2}-W\d{2}$/;

export class KeepBuyingRuleDto {
  /** Of a class; absent for the company or an item. */
  @IsOptional() @IsString() @MaxLength(40) className?: string;
  /** Of an item; absent for the company or a class. */
  @IsOptional() @IsString() @MaxLength(40) sku?: string;
  /** At one site; absent for all. */
  @IsOptional() @IsInt() @Min(1) siteId?: number | null;
  @IsOptional() @IsString() @Matches(PERCENT, { message: 'Per cent from 50 to 99.9, such as 97 or 98.5' }) servicePercent?: string | null;
  @IsOptional() @IsInt() @Min(1, { message: 'Every day at the most' }) @Max(90, { message: 'Every 90 days at the least' }) reviewDays?:
    number | null;
  @IsOptional() @IsString() @MaxLength(20) supplier?: string | null;
  @IsOptional() @IsString() @MaxLength(40) likeSku?: string | null;
  @IsOptional() @IsInt() @Min(1) @Max(1_000, { message: 'At most ten times as much' }) likePercent?: number | null;
  /** Of one item: so many base units there is room for. */
  @IsOptional() @IsInt() @Min(1, { message: 'One unit at the least' }) @Max(100_000_000) roomUnits?: number | null;
  @IsBoolean() isFixed: boolean;
  @IsBoolean() isDropped: boolean;
}
export class BuyingRuleDto {
  id: number;
  className: string | null;
  sku: string | null;
  item: string | null;
  siteId: number | null;
  site: string | null;
  servicePercent: string | null;
  reviewDays: number | null;
  supplier: string | null;
  likeSku: string | null;
  likePercent: number | null;
  roomUnits: number | null;
  isFixed: boolean;
  isDropped: boolean;
  version: number;
}
export class KeepMarkDto {
  @IsString() @Length(1, 60, { message: 'Give it a name, such as the spring sale' }) name: string;
  @IsOptional() @IsString() @MaxLength(40) className?: string;
  @IsOptional() @IsString() @MaxLength(40) sku?: string;
  @IsOptional() @IsInt() @Min(1) siteId?: number | null;
  @Matches(WEEK, { message: 'A week such as 2026-W05' }) from: string;
  @Matches(WEEK, { message: 'A week such as 2026-W05' }) to: string;
  /** Per cent more than usual, or less; absent: as the last of this name brought. */
  @IsOptional() @IsInt() @Min(-100, { message: 'Nothing at all is −100' }) @Max(2_000) liftPercent?: number | null;
}
export class MarkDto {
  id: number;
  name: string;
  className: string | null;
  sku: string | null;
  item: string | null;
  siteId: number | null;
  site: string | null;
  from: string;
  to: string;
  liftPercent: number | null;
  version: number;
}
