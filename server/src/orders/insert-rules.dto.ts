import { Type } from 'class-transformer';
import { IsBoolean, IsInt, IsOptional, Matches, Max, Min, ValidateIf } from 'class-validator';

/** What goes with which orders. */
export class InsertRuleDto {
  id: number;
  itemId: number;
  sku: string;
  name: string;
  /** Null for orders of every channel. */
  channelId: number | null;
  channel: string | null;
  /** Base units that go with an order. */
  units: number;
  /** From which value of an order on; null for any. */
  fromValue: string | null;
  /** Only with the first order of a customer. */
  firstOnly: boolean;
  version: number;
}
/** An item that never holds up an order: it may go along. */
export class InsertItemDto {
  id: number;
  sku: string;
  name: string;
}
export class InsertRulesDto {
  rules: InsertRuleDto[];
  items: InsertItemDto[];
}
export class EditInsertRuleDto {
  @IsInt({ message: 'Choose what goes along' }) itemId: number;
  @IsOptional() @ValidateIf((_, value) => value !== null) @IsInt() channelId: number | null;
  @Type(() => Number)
  @IsInt({ message: 'How many go with an order, a whole number' })
  @Min(1, { message: 'At least 1' })
  @Max(1_000, { message: 'At most 1,000' })
  units: number;
  @IsOptional()
  @ValidateIf((_, value) => value !== null)
  @Matches(/^\d{1,9}([.,]\d{1,2})?$/, { message: 'The value is a number, such as 50 or 49.90' })
  fromValue: string | null;
  @IsBoolean() firstOnly: boolean;
}
