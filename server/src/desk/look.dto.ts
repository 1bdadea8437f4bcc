import { PackDto } from '../catalogue/index.js';

export class LookStockDto {
  place: string;
  kind: string;
  site: string;
  lot: string | null;
  expires: string | null;
  condition: string;
  units: number;
}
export class LookContentDto {
  sku: string;
  name: string;
  picture: string;
  lot: string | null;
  condition: string;
  units: number;
  unit: string;
}
export class LookItemDto {
  sku: string;
  name: string;
  picture: string;
  pictureMark: string | null;
  tracking: string;
  home: string | null;
  packs: PackDto[];
  /** The pack unit that was scanned, by what it holds. */
  holds: number;
  onHand: number;
  available: number;
}
/** What a scanned code is and where; exactly one of the parts is there, by kind. */
export class LookDto {
  /** `item`, `place`, `document`, `person` or `unknown`. */
  kind: string;
  code: string;
  title: string;
  detail: string;
  /** Where the floor goes on from here; null where there is nothing to do. */
  go: string | null;
  lot: string | null;
  expires: string | null;
  item: LookItemDto | null;
  stock: LookStockDto[];
  contents: LookContentDto[];
}
