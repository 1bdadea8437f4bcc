import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
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

const SUBJECTS = ['place', 'item', 'badge', 'document'] as const;

export class MediaDto {
  @IsIn(['roll', 'sheet']) kind: 'roll' | 'sheet';
  @IsNumber() widthMm: number;
  @IsNumber() heightMm: number;
  @IsInt() columns: number;
  @IsInt() rows: number;
  @IsNumber() pageWidthMm: number;
  @IsNumber() pageHeightMm: number;
  @IsNumber() leftMm: number;
  @IsNumber() topMm: number;
  @IsNumber() gapXMm: number;
  @IsNumber() gapYMm: number;
}
export class LabelElementDto {
  @IsString() @Length(1, 40) id: string;
  @IsIn(['text', 'barcode', 'arrow', 'box']) kind: 'text' | 'barcode' | 'arrow' | 'box';
  @IsNumber() xMm: number;
  @IsNumber() yMm: number;
  @IsNumber() wMm: number;
  @IsNumber() hMm: number;
  @IsOptional() @IsString() @MaxLength(200) text?: string;
  @IsOptional() @IsIn(['left', 'centre', 'right']) align?: 'left' | 'centre' | 'right';
  @IsOptional() @IsBoolean() bold?: boolean;
  @IsOptional() @IsBoolean() mono?: boolean;
  @IsOptional() @IsString() @MaxLength(200) value?: string;
  @IsOptional() @IsIn(['code-128', 'gs1-128', 'ean', 'data-matrix', 'qr']) symbology?:
    'code-128' | 'gs1-128' | 'ean' | 'data-matrix' | 'qr';
  @IsOptional() @IsBoolean() withText?: boolean;
  @IsOptional() @IsIn(['up', 'down', 'by-level']) direction?: 'up' | 'down' | 'by-level';
}
export class EditDesignDto {
  @IsString() @Length(1, 60) name: string;
  @IsIn(SUBJECTS) subject: (typeof SUBJECTS)[number];
  @ValidateNested() @Type(() => MediaDto) media: MediaDto;
  @IsArray() @ArrayMaxSize(60) @ValidateNested({ each: true }) @Type(() => LabelElementDto) elements: LabelElementDto[];
}
export class DesignDto {
  id: number;
  name: string;
  subject: string;
  media: MediaDto;
  elements: LabelElementDto[];
  version: number;
}
export class DesignIdDto {
  id: number;
}
/** Labels that one request may print. */
export const MOST_LABELS = 5_000;
export class LabelOfDto {
  /** A place's code, an item's SKU, a person's badge, a document's code. */
  @IsString() @Length(1, 60) code: string;
  /** Items: the pack unit by what it holds, 1 by default. */
  @IsOptional() @IsInt() @Min(1) holds?: number;
  @IsOptional() @IsString() @MaxLength(40) lot?: string;
  @IsOptional() @Matches(/^(\d{4}-\d{2}-\d{2})?$/, { message: 'A date, such as 2026-05-14' }) expires?: string;
}
export class PrintLabelsDto {
  @IsInt() designId: number;
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(MOST_LABELS) @ValidateNested({ each: true }) @Type(() => LabelOfDto) labels: LabelOfDto[];
  @IsInt() @Min(1) @Max(500) copies: number;
  /** Sheets: the first free place, from 1. */
  @IsInt() @Min(1) @Max(1_600) start: number;
  /** Left out when the labels are wanted as a PDF; nought is the device's own printer, or the first of the site. */
  @IsOptional() @IsInt() printerId?: number;
}
export class PrinterDto {
  id: number;
  name: string;
  siteId: number;
  site: string;
  address: string;
  version: number;
}
export class EditPrinterDto {
  @IsString() @Length(1, 60) name: string;
  @IsInt() siteId: number;
  @Matches(/^[A-Za-z0-9.-]{1,100}:\d{1,5}$/, { message: 'A printer is reached by host and port, such as 192.0.2.20:9100' }) address: string;
}
export class PrinterIdDto {
  id: number;
}
export class TrayRowDto {
  /** The number of its delivery, by which it is tried again. */
  id: number;
  title: string;
  printer: string;
  labels: number;
  /** `waiting`, `failing` or `done`. */
  state: string;
  attempts: number;
  problem: string | null;
  who: string | null;
  at: Date;
}
export class PrintedDto {
  job: number;
  printer: string;
}
/** A paper for a printer: which, of which document. */
export class PrintPaperDto {
  @IsString() @Length(1, 20) paper: string;
  @IsString() @Length(1, 40) code: string;
  /** 0: the printer of the device, or the first of one's sites. */
  @IsInt() @Min(0) printerId: number;
}
