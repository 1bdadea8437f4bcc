import { IsOptional, IsString, MaxLength } from 'class-validator';

export class ArrivalDoorDto {
  /** The dock it comes to; none for whichever is free. */
  @IsOptional() @IsString() @MaxLength(20) door?: string | null;
}
export class ArrivalRowDto {
  code: string;
  door: string | null;
  supplier: string;
  site: string;
  state: string;
  expectedOn: string | null;
  late: boolean;
  /** Since when its goods stand at the door, and when it was closed. */
  openedAt: Date | null;
  closedAt: Date | null;
  closedBy: string | null;
  orders: string[];
  pallets: number;
  palletsIn: number;
  receipts: number;
  /** How many receipts were damaged or set apart. */
  aside: number;
}
export class ArrivalPageDto {
  rows: ArrivalRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class CostPartDto {
  says: string;
  document: string | null;
  /** Of the whole receipt, and of one base unit, in the house's money. */
  amount: string;
  each: string;
}
/** What goods cost as they stand in the house. */
export class LandedDto {
  value: string;
  each: string;
  parts: CostPartDto[];
}
export class ReceiptDto {
  id: number;
  at: Date;
  by: string;
  sku: string;
  name: string;
  picture: string;
  /** Base units, and the same in packs. */
  units: number;
  words: string;
  lot: string | null;
  expires: string | null;
  place: string;
  order: string | null;
  line: number | null;
  takenAs: string;
  condition: string;
  reason: string | null;
  how: string | null;
  pictured: boolean;
  undone: boolean;
  /** Absent for those who may not see costs. */
  landed?: LandedDto;
}
export class AnnouncedDto {
  sscc: string | null;
  sku: string;
  name: string;
  words: string;
  lot: string | null;
  expires: string | null;
  order: string | null;
  received: boolean;
}
export class ArrivalDto {
  code: string;
  siteId: number;
  door: string | null;
  supplierCode: string | null;
  supplier: string;
  supplierPhone: string;
  supplierEmail: string;
  site: string;
  state: string;
  expectedOn: string | null;
  paper: string;
  advice: string | null;
  openedAt: Date | null;
  openedBy: string | null;
  closedAt: Date | null;
  closedBy: string | null;
  orders: string[];
  receipts: ReceiptDto[];
  announced: AnnouncedDto[];
}
