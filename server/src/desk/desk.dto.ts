import { ApiProperty } from '@nestjs/swagger';
import { type Topic, TOPICS } from '../activity/index.js';

export class TapeEntryDto {
  id: number;
  at: Date;
  who: string;
  kind: string;
  glyph: string;
  title: string;
  detail: string;
  document: string | null;
  how: string | null;
  undoable: boolean;
  undone: boolean;
  /** The act whose picture it has; null where it has none. */
  picture: string | null;
}
/** What an event of the live stream tells: new lines of the tape, the oldest first, and what their acts have changed. */
export class LiveLinesDto {
  entries: TapeEntryDto[];
  @ApiProperty({ enum: TOPICS, enumName: 'Topic', isArray: true }) changed: Topic[];
}
export class TapeDto {
  entries: TapeEntryDto[];
  scansToday: number;
}
export class UndoneDto {
  title: string;
}
export class StageDto {
  stage: string;
  count: number;
  unit: string;
  oldest: Date | null;
  stuck: number;
  /** Hours of work that wait, by the pace of the last fortnight; null until anything was done at the stage. */
  hours: number | null;
  /** Hours of work that a usual day gives the stage; null likewise. */
  hoursADay: number | null;
}
export class UrgentDto {
  code: string;
  customer: string;
  promisedAt: Date;
  /** The round that waits for a picker; null where it is not released yet. */
  round: string | null;
}
export class LineDto {
  now: Date;
  stages: StageDto[];
  /** Urgent orders that nobody has begun with, the one that is wanted soonest first; at most three are named. */
  urgent: UrgentDto[];
  /** How many there are. */
  urgentCount: number;
}
export class StuckDto {
  glyph: string;
  code: string;
  link: string;
  title: string;
  detail: string;
  since: Date;
  late: boolean;
  who: string;
  whoNote: string;
  action: string;
}
export class ExpectedDto {
  code: string;
  supplier: string;
  expectedOn: string | null;
  lines: number;
  state: string;
  late: boolean;
}
export class PromisedOrderDto {
  code: string;
  promisedAt: Date;
  state: string;
  safe: boolean;
}
export class DepartureDto {
  name: string;
  at: Date;
}
export class NowDto {
  /** What is promised for today or, once the last van has left, what is still open of today and what is promised until the next working day ends. */
  promised: PromisedOrderDto[];
  /** What still leaves on that day, soonest first. */
  departures: DepartureDto[];
  /** When the last of them leaves. */
  lastLeavesAt: Date;
  stuck: StuckDto[];
  expected: ExpectedDto[];
}
export class FoundDto {
  kind: string;
  code: string;
  title: string;
  link: string;
}
export class FindDto {
  /** The one record that the code opens; null where it is a word. */
  opens: string | null;
  found: FoundDto[];
}

/** One thing that a new house needs, and where it is done. */
export class FirstStepDto {
  /** To the first scan, or to the first parcel. */
  @ApiProperty({ enum: ['scan', 'parcel'] }) part: 'scan' | 'parcel';
  key: string;
  says: string;
  how: string;
  link: string;
  /** The house can go on without it. */
  optional: boolean;
  done: boolean;
}
export class FirstStepsDto {
  /** In order; empty once the house knows its way. */
  steps: FirstStepDto[];
}
