import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsInt, IsISO8601, IsOptional, IsString, Length, Max, MaxLength, Min, ValidateNested } from 'class-validator'; // prettier-ignore

/** Goods of another site that are not wanted there, and could come instead of an order. */
export class SpareGoodsDto {
  siteId: number;
  site: string;
  units: number;
}
/** What should be bought of an item, and why. Units are base units. */
export class BuyingLineDto {
  sku: string;
  name: string;
  picture: string | null;
  class: string;
  unit: string;
  unitPlural: string;
  units: number;
  /** Units in the pack that is ordered; 1 where it is built here. */
  factor: number;
  pack: string;
  packPlural: string;
  /** Of a pack, in the supplier's currency; absent for those who may not see costs. */
  price?: string;
  /** Of a base unit, in the home currency; absent likewise. */
  unitCost?: string;
  /** Free, and on its way or on a draft. */
  free: number;
  onOrder: number;
  /** Order at this point; what is free and on its way counts. */
  point: number;
  weekMean: number;
  method: string;
  leadDays: number;
  /** The day on which nothing is left if nothing is ordered; null where that is farther off than half a year. */
  runsOutOn: string | null;
  /** What an order placed today would come too late for. */
  missed: number;
  /** Of it, promised to customers. */
  broken: number;
  /** Why it is more or less than what is due; ''. */
  because: string;
  /** Whether it is due by itself, or only taken along. */
  isDue: boolean;
  /** What was proposed the day before; null where it was not, or nothing was kept. */
  yesterday: number | null;
  /** Units on their way that should have been here. */
  late: number;
  elsewhere: SpareGoodsDto | null;
  /** How many others sell it. */
  others: number;
}
export class BuyingSupplierDto {
  code: string;
  name: string;
  currency: string;
  /** The next day on which it takes orders: today, or later. */
  orderOn: string;
  /** The day on which goods ordered then can be here. */
  hereOn: string;
  leastValue?: string | null;
  leastUnits: number | null;
  leastPallets: number | null;
  isEnough: boolean;
  lines: BuyingLineDto[];
}
/** Something that a buyer should look at before anything else. */
export class BuyingExceptionDto {
  sku: string;
  name: string;
  what: 'late' | 'faster' | 'slower' | 'gone';
  says: string;
}
export class PutOffDto {
  sku: string;
  name: string;
  until: string;
  why: string;
  by: string;
}
export class BuyingDto {
  siteId: number;
  site: string;
  today: string;
  /** The last choice that was known when this was read: who takes proposals says what he has seen. */
  asOf: number;
  /** Items that are planned here, and those of them that are still being planned anew. */
  items: number;
  planning: number;
  /** Whether the day before was kept, so that what is new can be told. */
  knowsYesterday: boolean;
  suppliers: BuyingSupplierDto[];
  /** To be built here. */
  built: BuyingLineDto[];
  /** Due, and no supplier has a price for them. */
  unsourced: BuyingLineDto[];
  exceptions: BuyingExceptionDto[];
  putOff: PutOffDto[];
}

export class TakenLineDto {
  @IsString() @Length(1, 40) sku: string;
  @IsString() @Length(2, 20) supplier: string;
  @IsInt({ message: 'A quantity is a whole number of packs' }) @Min(1, { message: 'Order at least 1' }) @Max(100_000) packs: number;
}
export class TakeProposalsDto {
  @IsInt() @Min(1) siteId: number;
  /** As it stood in the proposals that were read. */
  @IsInt() @Min(0) asOf: number;
  @IsArray()
  @ArrayMinSize(1, { message: 'Choose what is to be ordered' })
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => TakenLineDto)
  lines: TakenLineDto[];
}
export class OrdersMadeDto {
  orders: string[];
}
export class PutOffProposalDto {
  @IsInt() @Min(1) siteId: number;
  @IsString() @Length(1, 40) sku: string;
  /** Until a day; there is enough for a month, whatever the sums say; or it is bought no more. */
  @IsIn(['later', 'enough', 'dropped']) says: 'later' | 'enough' | 'dropped';
  @IsOptional() @IsISO8601({ strict: true }, { message: 'A day, such as 2026-12-14' }) @Length(10, 10) until?: string;
  @IsString() @MaxLength(200) why: string;
}
export class BringBackDto {
  @IsInt() @Min(1) siteId: number;
  @IsString() @Length(1, 40) sku: string;
}
export class PlanAgainDto {
  @IsInt() @Min(1) siteId: number;
}
export class PlanningDto {
  /** Items that are still being planned. */
  planning: number;
}
export class SkuDto {
  sku: string;
}
