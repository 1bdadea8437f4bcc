import { ApiProperty } from '@nestjs/swagger';
import { SKU, SKU_SAYS } from '@vectrum/core/catalogue';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { ITEM_KINDS, ROTATIONS, STORAGES, TRACKINGS, type ItemKind, type Storage, type Tracking } from './kinds.js';

export const PRICE = /^\d{1,10}(\.\d{1,6})?$/;
const COST_SAYS = 'A cost is a number of up to 6 decimal places';

export class PackDto {
  id: number;
  name: string;
  plural: string;
  factor: number;
  weightG: number | null;
  lengthMm: number | null;
  widthMm: number | null;
  heightMm: number | null;
  barcodes: string[];
}
export class ItemRowDto {
  id: number;
  sku: string;
  name: string;
  className: string;
  kind: string;
  picture: string;
  /** Names the uploaded picture's newest version; null where the drawing stands for it. */
  pictureMark: string | null;
  tracking: string;
  unit: string;
  units: string;
  tags: string[];
  suppliers: string;
  /** Home bin at the site filtered by, or at the first site that has one. */
  home: string | null;
  /** What a person or a file has said a unit costs; absent for those who may not see costs. */
  cost?: string | null;
  /** What the books hold a unit of the stock at; null while there is none. Absent for those who may not see costs. */
  bookedCost?: string | null;
  onHand: number;
  held: number;
  reserved: number;
  available: number;
  incoming: number;
  /** Whether these sites ever had some of it. */
  isStocked: boolean;
  /** What the company's own fields hold, by their names. */
  @ApiProperty({ type: 'object', additionalProperties: { type: 'string' } }) extra: Record<string, string>;
  /** What is missing, in words; empty where the item is complete. */
  lacks: string[];
  version: number;
}
export class ItemPageDto {
  rows: ItemRowDto[];
  total: number;
}
export class ItemCountsDto {
  all: number;
  short: number;
  /** Of which no more is free and on order than the reorder point of a site. */
  reorder: number;
  backordered: number;
  incomplete: number;
  noBarcode: number;
}
export class ItemChoicesDto {
  classes: string[];
  tags: string[];
  suppliers: string[];
}
export class ItemSiteDto {
  siteId: number;
  site: string;
  home: string | null;
  /** Absent for those who may not see costs. */
  cost?: string | null;
  reorderPoint: number | null;
  orderUpTo: number | null;
  /** Fewer units than this are not left at its pick face; null for no such wish. */
  refillBelow: number | null;
  /** What its pick face is filled up to then; null for just enough. */
  refillUpTo: number | null;
}
export class ItemPartDto {
  sku: string;
  name: string;
  units: number;
  unit: string;
  available: number;
}
export class ItemDto {
  id: number;
  sku: string;
  name: string;
  className: string;
  kind: string;
  picture: string;
  pictureMark: string | null;
  tracking: string;
  rotation: string;
  storage: string;
  /** Days of life that goods must have left on arrival; null where any will do. */
  minLifeDays: number | null;
  taxCode: string | null;
  /** What a person or a file has said a unit costs; absent for those who may not see costs. */
  cost?: string | null;
  /** What the books hold a unit of the stock at; null while there is none. Absent for those who may not see costs. */
  bookedCost?: string | null;
  /** What building one costs in labour; absent for those who may not see costs. */
  labour?: string | null;
  neverHoldsUp: boolean;
  /** Whether pickers scan every piece of it. */
  scanEach: boolean;
  serialAtPacking: boolean;
  /** How it lies in a box: its height stays vertical; nothing stands on it. */
  keepUpright: boolean;
  fragile: boolean;
  tags: string[];
  extra: Record<string, string>;
  sites: ItemSiteDto[];
  parts: ItemPartDto[];
  /** Kits and assemblies that this item is a part of. */
  usedIn: string[];
  /** How many can be made of the parts that are free; null for single items. */
  buildable: number | null;
  packs: PackDto[];
  lacks: string[];
  version: number;
}
export class EditPackDto {
  @IsString() @Length(1, 30) name: string;
  @IsString() @Length(1, 30) plural: string;
  @IsInt() @Min(1) @Max(1_000_000) factor: number;
  @IsOptional() @IsInt() @Min(1) @Max(50_000_000) weightG?: number | null;
  @IsOptional() @IsInt() @Min(1) @Max(20_000) lengthMm?: number | null;
  @IsOptional() @IsInt() @Min(1) @Max(20_000) widthMm?: number | null;
  @IsOptional() @IsInt() @Min(1) @Max(20_000) heightMm?: number | null;
  @IsArray() @ArrayMaxSize(20) @IsString({ each: true }) @Length(1, 60, { each: true }) barcodes: string[];
}
export class EditItemSiteDto {
  @IsInt() siteId: number;
  @IsOptional() @IsString() @MaxLength(40) home?: string | null;
  @IsOptional() @Matches(PRICE, { message: COST_SAYS }) cost?: string | null;
  @IsOptional() @IsInt() @Min(0) @Max(100_000_000) reorderPoint?: number | null;
  @IsOptional() @IsInt() @Min(0) @Max(100_000_000) orderUpTo?: number | null;
  @IsOptional() @IsInt() @Min(0) @Max(100_000_000) refillBelow?: number | null;
  @IsOptional() @IsInt() @Min(0) @Max(100_000_000) refillUpTo?: number | null;
}
export class EditItemPartDto {
  @IsString() @Length(1, 40) sku: string;
  @IsInt() @Min(1) @Max(100_000) units: number;
}
export class EditItemDto {
  @Matches(SKU, { message: SKU_SAYS }) sku: string;
  @IsString() @Length(1, 120) name: string;
  @IsString() @MaxLength(40) className: string;
  @IsString() @Matches(/^[a-z-]{1,40}$/) picture: string;
  @IsIn(TRACKINGS) tracking: Tracking;
  @IsIn(ROTATIONS) rotation: 'fifo' | 'fefo';
  @IsOptional() @IsIn(ITEM_KINDS) kind?: ItemKind;
  @IsOptional() @IsIn(STORAGES) storage?: Storage;
  @IsOptional() @IsInt({ message: 'Least life on arrival is a whole number of days' }) @Min(0) @Max(10_000) minLifeDays?: number | null;
  @IsOptional() @IsString() @MaxLength(12) taxCode?: string | null;
  @IsOptional() @Matches(PRICE, { message: COST_SAYS }) cost?: string | null;
  @IsOptional() @Matches(PRICE, { message: COST_SAYS }) labour?: string | null;
  @IsBoolean() neverHoldsUp: boolean;
  @IsOptional() @IsBoolean() scanEach?: boolean;
  @IsOptional() @IsBoolean() serialAtPacking?: boolean;
  @IsOptional() @IsBoolean() keepUpright?: boolean;
  @IsOptional() @IsBoolean() fragile?: boolean;
  @IsOptional() @IsArray() @ArrayMaxSize(20) @IsString({ each: true }) @Length(1, 30, { each: true }) tags?: string[];
  @IsOptional() @IsObject() extra?: Record<string, string>;
  @IsOptional() @IsArray() @ArrayMaxSize(20) @ValidateNested({ each: true }) @Type(() => EditItemSiteDto) sites?: EditItemSiteDto[];
  @IsOptional() @IsArray() @ArrayMaxSize(100) @ValidateNested({ each: true }) @Type(() => EditItemPartDto) parts?: EditItemPartDto[];
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(8)
  @ValidateNested({ each: true })
  @Type(() => EditPackDto)
  packs: EditPackDto[];
}
/** The fields that can be changed in the list, one at a time or for many items at once. */
export const LIST_FIELDS = [
  'name',
  'className',
  'cost',
  'rotation',
  'storage',
  'neverHoldsUp',
  'addTag',
  'dropTag',
  'home',
  'reorderPoint',
  'orderUpTo',
  'refillBelow',
  'refillUpTo',
] as const;
export type ListField = (typeof LIST_FIELDS)[number];

export class ChangeFieldDto {
  @IsIn(LIST_FIELDS) field: ListField;
  @IsString() @MaxLength(120) value: string;
  /** For fields that an item has at each site. */
  @IsOptional() @IsInt() siteId?: number | null;
}
export class ChangeManyDto extends ChangeFieldDto {
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(5_000) @IsString({ each: true }) skus: string[];
}
export class HomeDto {
  @IsString() @Length(1, 40) sku: string;
  @IsString() @Length(1, 40) place: string;
}
/** Goods that get another pick face at a site. */
export class ChangeHomesDto {
  @IsInt() siteId: number;
  @ValidateNested({ each: true }) @Type(() => HomeDto) @ArrayMinSize(1) @ArrayMaxSize(200) homes: HomeDto[];
}
export class ChangedDto {
  changed: number;
  activityId: number;
}
export class NewBarcodeDto {
  /** Which pack unit it is for, by what it holds. */
  @IsInt() @Min(1) factor: number;
  /** Left out, the house makes one of the kind named. */
  @IsOptional() @IsString() @Length(1, 60) code?: string;
  @IsOptional() @IsIn(['restricted', 'code-128']) make?: 'restricted' | 'code-128';
}
export class MakeBarcodesDto {
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(5_000) @IsString({ each: true }) skus: string[];
  @IsIn(['restricted', 'code-128']) make: 'restricted' | 'code-128';
}
export class MadeBarcodesDto {
  /** How many items got one. */
  made: number;
  /** How many have one already and were left as they are. */
  left: number;
  activityId: number | null;
}
export class ExtraFieldDto {
  name: string;
  kind: string;
  choices: string[];
}
export class ExtraFieldsDto {
  version: number;
  fields: ExtraFieldDto[];
}
export class EditExtraFieldDto {
  @Matches(/^\p{L}[\p{L}\p{N} ./-]{0,28}$/u, {
    message: 'A field is named with letters, digits, spaces, points, hyphens and strokes, up to 29',
  })
  name: string;
  @IsIn(['text', 'number', 'date', 'yes-no', 'choice']) kind: 'text' | 'number' | 'date' | 'yes-no' | 'choice';
  @IsArray() @ArrayMaxSize(50) @IsString({ each: true }) @Length(1, 60, { each: true }) choices: string[];
}
export class EditExtraFieldsDto {
  @IsArray() @ArrayMaxSize(30) @ValidateNested({ each: true }) @Type(() => EditExtraFieldDto) fields: EditExtraFieldDto[];
}
export class DrawingDto {
  name: string;
  /** What stands inside an `svg` of 64 by 64. */
  svg: string;
}
/** The item that a picture's file is named for. */
export class PictureItemDto {
  sku: string;
  name: string;
  hasPicture: boolean;
}
export class PictureForDto {
  name: string;
  /** Null where no item has the name as its SKU or as a barcode. */
  item: PictureItemDto | null;
}
