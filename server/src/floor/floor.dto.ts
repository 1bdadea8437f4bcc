import { ApiProperty } from '@nestjs/swagger';
import { type Bundle, QUESTION_ANSWERS, type QuestionAnswer, type RefusedCommand } from '@vectrum/core/scan';
import { IsBoolean, IsIn, IsInt, IsISO8601, IsObject, IsOptional, IsString, IsUUID, MaxLength, Min } from 'class-validator';

/** What every command of the floor carries: what it is, and the UUID that is its Idempotency-Key too. */
export class FloorCommandDto {
  @IsUUID() id: string;
}

/** What a scan or a typed code was; kept with each act. */
export class HowDto extends FloorCommandDto {
  @IsIn(['scanned', 'typed']) how: 'scanned' | 'typed';
}

export class RefusedCommandDto extends HowDto implements RefusedCommand {
  @ApiProperty({ enum: ['refused'] }) @IsIn(['refused']) kind: 'refused';
  @IsIn(['not-this', 'too-many', 'unknown']) band: 'not-this' | 'too-many' | 'unknown';
  @IsString() @MaxLength(150) title: string;
  @IsString() @MaxLength(280) detail: string;
  @IsString() @MaxLength(200) code: string;
  @IsOptional() @IsString() @MaxLength(40) document?: string;
  @IsOptional() @IsInt() siteId?: number;
}

/** One command of a device's queue, on its way. */
export class FloorPostDto {
  /** One of the floor's commands, told apart by `kind`. */
  @IsObject() command: object;
  /** The device's clock when it was made. */
  @IsISO8601() madeAt: string;
  /** Whose hands made it: the person who was signed in then. */
  @IsInt() @Min(1) madeBy: number;
  /** Whether nobody waits for the answer: what cannot be done then is kept as a question. */
  @IsBoolean() late: boolean;
}

export class MissingLineDto {
  order: string;
  line: number;
  name: string;
  /** Base units, and the same in words. */
  units: number;
  missing: string;
}

/** What came of a command. */
export class FloorAnswerDto {
  /** The tape's line, for an undo. */
  activityId: number;
  /** The receipt, for a picture of goods that were set apart. */
  receiptId?: number;
  /** The arrival that goods were booked in with, or that was closed. */
  arrival?: string;
  /** What was missing of an arrival that was closed. */
  short?: MissingLineDto[];
}

/** What every task carries beside its own. */
export class BundleDto implements Bundle {
  siteId: number;
  /** Today at the site, and its time zone. */
  today: string;
  timeZone: string;
  /** Those of the commands asked about whose effect the task shows. */
  applied: string[];
}

export class QuestionChoiceDto {
  @ApiProperty({ enum: QUESTION_ANSWERS }) answer: QuestionAnswer;
  says: string;
}
export class QuestionDto {
  id: string;
  kind: string;
  /** What was done, in words: how many of what, where. */
  what: string;
  /** Why it could not be booked. */
  title: string;
  detail: string;
  document: string | null;
  siteId: number | null;
  who: string;
  /** Whether one's own hands did it. */
  mine: boolean;
  madeAt: Date;
  choices: QuestionChoiceDto[];
}
export class AnswerQuestionDto {
  @IsIn(QUESTION_ANSWERS) answer: QuestionAnswer;
}

export class BookCodeDto {
  code: string;
  packId: number;
}
export class BookPackDto {
  id: number;
  name: string;
  plural: string;
  factor: number;
}
export class BookItemDto {
  id: number;
  sku: string;
  name: string;
  picture: string;
  tracking: 'none' | 'lot' | 'lot-expiry' | 'serial';
  storage?: 'any' | 'cold' | 'restricted';
  minLifeDays?: number | null;
  /** Whether pickers scan every piece of it. */
  scanEach?: boolean;
  asksSerial?: boolean;
  home: string | null;
  packs: BookPackDto[];
  codes: BookCodeDto[];
}
export class BookPlaceDto {
  id: number;
  code: string;
  kind: string;
  siteId: number;
  rule?: 'none' | 'cold' | 'restricted';
}
/** A part of what has changed in a site's codes. */
export class BookPartDto {
  /** The version that the book has once all parts are taken in. */
  version: number;
  /** Where the next part begins; null where this is the last. */
  next: string | null;
  items: BookItemDto[];
  places: BookPlaceDto[];
  /** What is no longer in the book. */
  goneItems: number[];
  gonePlaces: number[];
}
