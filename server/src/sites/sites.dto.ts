import { IsBoolean, IsIn, IsInt, IsOptional, Matches } from 'class-validator';
import { PLACE_KINDS, type PlaceKind } from './place.entity.js';

export class PlaceDto {
  id: number;
  siteId: number;
  site: string;
  code: string;
  kind: string;
  pickable: boolean;
  blocked: boolean;
  /** How many items lie there. */
  items: number;
  version: number;
}
export class PlaceStockDto {
  sku: string;
  name: string;
  picture: string;
  lot: string | null;
  condition: string;
  units: number;
}
export class PlaceSheetDto extends PlaceDto {
  stock: PlaceStockDto[];
}
export class NewPlaceDto {
  @IsInt() siteId: number;
  @Matches(/^[A-Za-z0-9][A-Za-z0-9-]{0,30}$/, {
    message: 'A place code is letters, digits and hyphens, such as C-07-2',
  })
  code: string;
  @IsIn(PLACE_KINDS) kind: PlaceKind;
  @IsBoolean() pickable: boolean;
}
export class EditPlaceDto {
  @IsOptional() @IsIn(PLACE_KINDS) kind?: PlaceKind;
  @IsOptional() @IsBoolean() pickable?: boolean;
  @IsOptional() @IsBoolean() blocked?: boolean;
}
