import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsInt,
  IsISO8601,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';

export class PurchaseOrderRowDto {
  code: string;
  supplier: string;
  site: string;
  state: string;
  expectedOn: string | null;
  late: boolean;
  lines: number;
  linesIn: number;
  /** Since when the goods stand at the door, part received. */
  firstReceivedAt: Date | null;
}
export class PurchaseOrderLineDto {
  line: number;
  sku: string;
  name: string;
  picture: string;
  packId: number;
  pack: string;
  packPlural: string;
  factor: number;
  unit: string;
  units: string;
  packs: number;
  /** Base units. */
  ordered: number;
  received: number;
  /** Price of one pack, of one base unit, and of the line; absent for those who may not see costs. */
  price?: string;
  priceEach?: string;
  goods?: string;
}
export class PurchaseOrderDto {
  code: string;
  supplierCode: string;
  supplier: string;
  supplierEmail: string;
  supplierPhone: string;
  siteId: number;
  site: string;
  state: string;
  currency: string;
  expectedOn: string | null;
  note: string;
  createdBy: string;
  createdAt: Date;
  placedAt: Date | null;
  placedBy: string | null;
  firstReceivedAt: Date | null;
  goods?: string;
  lines: PurchaseOrderLineDto[];
  version: number;
}
export class EditPurchaseOrderLineDto {
  @IsString() @Length(1, 40) sku: string;
  @IsInt() @Min(1) @Max(1_000_000) factor: number;
  @IsInt({ message: 'A quantity is a whole number of packs' })
  @Min(1, { message: 'Order at least 1' })
  @Max(100_000)
  packs: number;
  @Matches(/^\d{1,10}(\.\d{1,6})?$/, { message: 'A price is a number of up to 6 decimal places' })
  price: string;
}
export class EditPurchaseOrderDto {
  @IsString() @Length(2, 20) supplier: string;
  @IsInt() siteId: number;
  @IsOptional() @IsISO8601({ strict: true }) @Length(10, 10) expectedOn?: string | null;
  @IsString() @MaxLength(500) note: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Write at least one line' })
  @ArrayMaxSize(300)
  @ValidateNested({ each: true })
  @Type(() => EditPurchaseOrderLineDto)
  lines: EditPurchaseOrderLineDto[];
}
