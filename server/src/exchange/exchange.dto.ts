import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsInt,
  IsOptional,
  IsString,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';

export class ImportColumnDto {
  /** How the file heads the column. */
  head: string;
  /** The field it holds; null where it is passed over. */
  field: string | null;
  /** The unit that its numbers are in; null where it measures nothing, or is in what is kept. */
  unit: string | null;
  /** The first few values, so that a person can see what it holds. */
  samples: string[];
}
export class ImportFieldDto {
  key: string;
  label: string;
  /** Other heads that it is known by. */
  also: string[];
  required: boolean;
  /** What it may be, where that is one of a few words; null otherwise. */
  choices: string[] | null;
  /** The units that a file may state it in, the kept one first; null where it measures nothing. */
  units: string[] | null;
}
export class ImportFaultDto {
  /** As the spreadsheet numbers it: the heads are row 1. */
  row: number;
  field: string;
  value: string;
  reason: string;
}
/** One fault of one value, in all rows that have it. */
export class ImportFaultGroupDto {
  /** The key of the field, and how it is called. */
  field: string;
  label: string;
  value: string;
  reason: string;
  rows: number;
  /** The first of them. */
  row: number;
}
/** What words of the file are read as. */
export class ImportWordDto {
  field: string;
  label: string;
  value: string;
  becomes: string;
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
  /** The same, taken together by what is wrong and with which value, the most first. */
  groups: ImportFaultGroupDto[];
  words: ImportWordDto[];
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
  /** The unit of each column, in its order; empty where it measures nothing. Absent: as the heads say. */
  @IsOptional() @IsArray() @ArrayMaxSize(200) @IsString({ each: true }) @MaxLength(4, { each: true }) units?: string[];
}
export class ImportMendDto {
  @IsString() @MaxLength(40) field: string;
  /** The value in all rows that have it; absent: all values that have the fault of `reason`. */
  @IsOptional() @IsString() @MaxLength(200) value?: string | null;
  @IsOptional() @IsString() @MaxLength(300) reason?: string | null;
  /** One row of the file, where only its cell is meant. */
  @IsOptional() @IsInt() @Min(2) row?: number | null;
  /** What it is read as from now on; empty passes the cell over, null takes back what was said. */
  @ValidateIf((_, value) => value !== null) @IsString() @MaxLength(500) becomes: string | null;
}
export class MendImportDto {
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(500) @ValidateNested({ each: true }) @Type(() => ImportMendDto) changes: ImportMendDto[];
}
export class ApplyDto {
  /** Takes the good rows and leaves the faulty ones; otherwise all rows or none. */
  @IsBoolean() goodRowsOnly: boolean;
}
