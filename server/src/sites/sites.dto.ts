import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { MOST_SLOTS, PLACE_KINDS, type PlaceKind, ZONE_RULES, type ZoneRule } from '@vectrum/core/places';

const CODE = /^[A-Za-z0-9][A-Za-z0-9-]{0,30}$/;
const CODE_SAYS = 'A place code is letters, digits and hyphens, such as C-07-2';

export class PlaceDto {
  id: number;
  siteId: number;
  site: string;
  code: string;
  kind: string;
  pickable: boolean;
  blocked: boolean;
  zone: string | null;
  walkOrder: number;
  /** True where a person has fixed the order by hand. */
  fixedOrder: boolean;
  holdsMl: number | null;
  holdsG: number | null;
  /** How many items lie there. */
  items: number;
  version: number;
}
export class PlacePageDto {
  rows: PlaceDto[];
  total: number;
}
export class PlaceStockDto {
  itemId: number;
  lotId: number;
  sku: string;
  name: string;
  picture: string;
  lot: string | null;
  condition: string;
  units: number;
}
export class PlaceSheetDto extends PlaceDto {
  aisle: string | null;
  x: number | null;
  y: number | null;
  /** Of what the place holds by volume and by weight, the greater share, in per cent; null where either is not known. */
  fullPercent: number | null;
  stock: PlaceStockDto[];
}
export class NewPlaceDto {
  @IsInt() siteId: number;
  @Matches(CODE, { message: CODE_SAYS }) code: string;
  @IsIn(PLACE_KINDS) kind: PlaceKind;
  @IsBoolean() pickable: boolean;
  /** Of a sorting wall: how many rows of slots hang over each other, and how many slots are in a row. */
  @IsOptional() @IsInt() @Min(1) @Max(MOST_SLOTS) slotRows?: number;
  @IsOptional() @IsInt() @Min(1) @Max(MOST_SLOTS) slotColumns?: number;
}
export class EditPlaceDto {
  @IsOptional() @IsIn(PLACE_KINDS) kind?: PlaceKind;
  @IsOptional() @IsBoolean() pickable?: boolean;
  @IsOptional() @IsBoolean() blocked?: boolean;
  /** A zone's code, or empty for none. */
  @IsOptional() @IsString() @MaxLength(40) zone?: string;
  @IsOptional() @IsInt() @Min(1) @Max(2_000_000_000) holdsMl?: number | null;
  @IsOptional() @IsInt() @Min(1) @Max(2_000_000_000) holdsG?: number | null;
  /** A number fixes the place in the walking order; null lets the plan decide again. */
  @IsOptional() @IsInt() @Min(0) @Max(10_000_000) walkOrder?: number | null;
}
export class ZoneDto {
  code: string;
  name: string;
  rule: string;
  siteId: number;
  bins: number;
  version: number;
}
export class EditZoneDto {
  @IsString() @Length(1, 60) name: string;
  @IsIn(ZONE_RULES) rule: ZoneRule;
}
export class NewZoneDto extends EditZoneDto {
  @IsInt() siteId: number;
  @Matches(CODE, { message: 'A zone code is letters, digits and hyphens, such as COLD' }) code: string;
}
export class AislesDto {
  @IsInt() siteId: number;
  @Matches(/^([A-Za-z]{1,2}|\d{1,4})$/, { message: 'An aisle is one or two letters, or a number' }) from: string;
  @Matches(/^([A-Za-z]{1,2}|\d{1,4})$/, { message: 'An aisle is one or two letters, or a number' }) to: string;
  @IsInt() bays: number;
  @IsInt() levels: number;
  @IsInt() pickLevels: number;
  /** Metres of a bay along the aisle. */
  @IsNumber() bayM: number;
  /** Where the first aisle begins on the plan, and the metres from one aisle to the next. */
  @IsNumber() @Min(0) @Max(1000) x: number;
  @IsNumber() @Min(0) @Max(1000) y: number;
  @IsNumber() @Min(1) @Max(50) gapM: number;
  @IsOptional() @IsString() @MaxLength(40) zone?: string;
  /** True only looks: nothing is made. */
  @IsBoolean() preview: boolean;
}
export class AislesMadeDto {
  aisles: number;
  bins: number;
  pickFaces: number;
  first: string;
  last: string;
  /** Codes that are places already; while there are any, nothing can be built. */
  taken: string[];
  activityId: number | null;
}
export class PlanShapeDto {
  /** Absent for a shape that was just drawn. */
  @IsOptional() @IsInt() id?: number;
  @IsIn(['aisle', 'walkway', 'wall']) kind: 'aisle' | 'walkway' | 'wall';
  @IsString() @MaxLength(40) label: string;
  @IsNumber() @Min(0) @Max(1000) x: number;
  @IsNumber() @Min(0) @Max(1000) y: number;
  @IsNumber() @Min(0) @Max(1000) toX: number;
  @IsNumber() @Min(0) @Max(1000) toY: number;
}
export class PlanPointDto {
  @IsString() @MaxLength(40) code: string;
  @IsNumber() @Min(0) @Max(1000) x: number;
  @IsNumber() @Min(0) @Max(1000) y: number;
}
export class PlacedPointDto extends PlanPointDto {
  kind: string;
}
export class BayDto {
  aisleId: number;
  along: number;
  bins: number;
  used: number;
  /** Movements of the last seven days that touched it. */
  moves: number;
  /** The places of the bay, from the floor up. */
  codes: string;
  zone: string | null;
}
export class PlanDto {
  siteId: number;
  site: string;
  widthM: number;
  depthM: number;
  shapes: PlanShapeDto[];
  points: PlacedPointDto[];
  /** Places that stand nowhere on the plan yet. */
  unplaced: PlacedPointDto[];
  bays: BayDto[];
  /** Metres of a walk past every pick face in walking order. */
  walkM: number;
  version: number;
}
export class EditPlanDto {
  @IsNumber() @Min(4) @Max(1000) widthM: number;
  @IsNumber() @Min(4) @Max(1000) depthM: number;
  @IsArray() @ArrayMaxSize(400) @ValidateNested({ each: true }) @Type(() => PlanShapeDto) shapes: PlanShapeDto[];
  @IsArray() @ArrayMaxSize(500) @ValidateNested({ each: true }) @Type(() => PlanPointDto) points: PlanPointDto[];
}
