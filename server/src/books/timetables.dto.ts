import { IsIn, IsISO8601, IsOptional, IsString, Length } from 'class-validator';

export class TimetableDto {
  what: string;
  every: 'day' | 'week' | 'month';
  keptBy: string;
  lastAt: Date | null;
  lastSays: string;
  version: number;
}
export class SetTimetableDto {
  /** Null: by hand. */
  @IsOptional() @IsIn(['day', 'week', 'month'], { message: 'Every day, week or month, or by hand' }) every?:
    'day' | 'week' | 'month' | null;
}
export class PeriodCloseDto {
  throughOn: string;
  by: string;
  at: Date;
  reopenedBy: string | null;
  reopenedAt: Date | null;
  reopenedWhy: string;
}
export class PeriodsDto {
  /** The last day of what is closed; null where nothing is. */
  closedThrough: string | null;
  rows: PeriodCloseDto[];
}
export class ClosePeriodDto {
  @IsISO8601({ strict: true }, { message: 'A day, such as 2026-05-31' }) @Length(10, 10) through: string;
}
export class ReopenPeriodDto {
  @IsString() @Length(1, 200, { message: 'Say why it is opened again' }) why: string;
}
