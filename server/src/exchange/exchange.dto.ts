import { ArrayMaxSize, IsArray, IsBoolean, IsString, MaxLength } from 'class-validator';

export class ImportColumnDto {
  /** How the file heads the column. */
  head: string;
  /** The field it holds; null where it is passed over. */
  field: string | null;
  /** The first few values, so that a person can see what it holds. */
  samples: string[];
}
export class ImportFieldDto {
  key: string;
  label: string;
  /** Other heads that it is known by. */
  also: string[];
  required: boolean;
}
export class ImportFaultDto {
  /** As the spreadsheet numbers it: the heads are row 1. */
  row: number;
  field: string;
  value: string;
  reason: string;
}
export class ImportDto {
  id: string;
  fileName: string;
  kind: string;
  says: string;
  state: string;
  columns: ImportColumnDto[];
  fields: ImportFieldDto[];
  total: number;
  /** Rows looked at, or taken in, so far. */
  done: number;
  faulty: number;
  made: number;
  changed: number;
  faults: ImportFaultDto[];
  problem: string | null;
  who: string;
  createdAt: Date;
}
export class ImportRowDto {
  id: string;
  fileName: string;
  kind: string;
  says: string;
  state: string;
  total: number;
  faulty: number;
  made: number;
  changed: number;
  who: string;
  createdAt: Date;
}
export class ImportPageDto {
  rows: ImportRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class ImportKindDto {
  kind: string;
  says: string;
  fields: ImportFieldDto[];
}
export class ImportIdDto {
  id: string;
}
export class MapColumnsDto {
  @IsString() @MaxLength(20) kind: string;
  /** The field of each column in its order; empty where it is passed over. */
  @IsArray() @ArrayMaxSize(200) @IsString({ each: true }) @MaxLength(60, { each: true }) fields: string[];
}
export class ApplyDto {
  /** Takes the good rows and leaves the faulty ones; otherwise all rows or none. */
  @IsBoolean() goodRowsOnly: boolean;
}
