import { ApiProperty } from '@nestjs/swagger';
import { ArrayMaxSize, IsBoolean, IsIn, IsInt, IsOptional, IsString, Max, MaxLength, Min, ValidateIf } from 'class-validator';

/** What a count can be drawn up by. */
export const DRAWN_BY = ['area', 'bins', 'items', 'class', 'lot', 'supplier', 'field', 'value', 'suspicion', 'plan'] as const;
export type DrawnBy = (typeof DRAWN_BY)[number];
export const COUNT_STATES = ['drawn-up', 'open', 'review', 'closed', 'dropped'] as const;
export type CountState = (typeof COUNT_STATES)[number];

export class DrawUpDto {
  @IsInt() siteId: number;
  @ApiProperty({ enum: DRAWN_BY }) @IsIn(DRAWN_BY) by: DrawnBy;
  /** Areas, bins, SKUs, classes, lots, suppliers; of an own field its name and what it holds. */
  @IsString({ each: true }) @MaxLength(120, { each: true }) @ArrayMaxSize(500) words: string[];
  /** Bins that are left out, whatever else is asked for. */
  @IsOptional() @IsString({ each: true }) @MaxLength(40, { each: true }) @ArrayMaxSize(500) except?: string[];
  /** How many bins by worth, or goods by plan. */
  @IsInt() @Min(1) @Max(20_000) most: number;
  /** What it is called; empty for a name of the house's making. */
  @IsString() @MaxLength(120) title: string;
  @IsBoolean() blind: boolean;
  @IsBoolean() scanEach: boolean;
}
/** What is to be counted in a bin that somebody stands at. */
export class PassingDto {
  /** Goods that the plan wants counted now. */
  due: number;
  /** The count that has the bin open on phones. */
  count: string | null;
}
/** What a count would be of. */
export class DrawnDto {
  bins: number;
  goods: number;
  /** Bins that are in another count, and in which. */
  elsewhere: ElsewhereDto[];
  areas: AreaCountDto[];
}
export class ElsewhereDto {
  place: string;
  count: string;
}
export class AreaCountDto {
  area: string;
  bins: number;
}
/** What counts can be drawn up of at a site. */
export class CountChoicesDto {
  areas: AreaCountDto[];
  /** Goods in bins that the plan wants counted now. */
  due: number;
  /** Who may count there. */
  people: CounterDto[];
}
export class CounterDto {
  id: number;
  name: string;
}
export class CountRowDto {
  code: string;
  title: string;
  siteId: number;
  site: string;
  @ApiProperty({ enum: COUNT_STATES }) state: CountState;
  bins: number;
  binsDone: number;
  lines: number;
  /** Lines of a count under review that are to be decided. */
  toDecide: number;
  madeBy: string | null;
  madeAt: Date;
  openedAt: Date | null;
  endedAt: Date | null;
}
export class CountPageDto {
  rows: CountRowDto[];
  total: number;
}
export class CountBinDto {
  placeId: number;
  code: string;
  area: string;
  @ApiProperty({ enum: ['open', 'begun', 'counted'] }) state: 'open' | 'begun' | 'counted';
  /** Who is to count it; null where anybody may. */
  person: string | null;
  /** Who has begun, and on which device. */
  begunBy: string | null;
  device: string | null;
  lines: number;
  linesDone: number;
}
export class CountCodeDto {
  id: number;
  place: string;
  code: string;
  units: number;
  by: string | null;
  at: Date;
}
export class CountDto extends CountRowDto {
  wholeBins: boolean;
  blind: boolean;
  scanEach: boolean;
  version: number;
  binRows: CountBinDto[];
  /** Codes that nobody knows and nobody has settled yet. */
  codes: CountCodeDto[];
}
export class CauseDto {
  @ApiProperty({ enum: ['neighbour', 'not-put-away', 'pack', 'mixed-up'] }) kind: 'neighbour' | 'not-put-away' | 'pack' | 'mixed-up';
  says: string;
  /** Whether a move that would put it right can be booked. */
  canMove: boolean;
}
export class EarlierLookDto {
  by: string | null;
  at: Date;
  units: number;
}
export class CountLineDto {
  id: number;
  version: number;
  place: string;
  itemId: number;
  sku: string;
  item: string;
  lot: string | null;
  isDamaged: boolean;
  /** Whether its list named it. */
  isListed: boolean;
  @ApiProperty({ enum: ['open', 'counted', 'accepted', 'dropped'] }) state: 'open' | 'counted' | 'accepted' | 'dropped';
  counted: number | null;
  /** What should have been there when somebody looked. */
  expected: number | null;
  /** What has moved since the look. */
  cameIn: number;
  wentOut: number;
  by: string | null;
  at: Date | null;
  /** What it is off by in the home currency, decimal text; null where costs are not to be seen or not known. */
  value: string | null;
  percent: number | null;
  isWithin: boolean;
  /** Which limit held or broke, and why. */
  says: string;
  /** Whether whoever looks now counted it, so that somebody else has to decide. */
  isOwn: boolean;
  causes: CauseDto[];
  earlier: EarlierLookDto[];
  reason: string | null;
  settledBy: string | null;
}
export class ReviewDto {
  rows: CountLineDto[];
  total: number;
  lines: number;
  off: number;
  within: number;
  beyond: number;
  undecided: number;
  /** What all that is off comes to, more and less; null where costs are not to be seen. */
  more: string | null;
  less: string | null;
  /** Lines within tolerance ÷ lines, in per cent. */
  accuracy: number | null;
}
export class ShareCountDto {
  @IsInt({ each: true }) @ArrayMaxSize(50) personIds: number[];
}
export class GiveBinDto {
  @ValidateIf((d: GiveBinDto) => d.personId !== null) @IsInt() personId: number | null;
}
export class EndCountDto {
  /** Whether bins that nobody has counted are left out. */
  @IsBoolean() leaveOut: boolean;
}
export class DropCountDto {
  @IsString() @MaxLength(200) reason: string;
}
export class LinesDto {
  /** The lines; none for all that are within tolerance. */
  @IsInt({ each: true }) @ArrayMaxSize(500) lineIds: number[];
}
export class DiscardLinesDto extends LinesDto {
  @IsString() @MaxLength(200) reason: string;
}
export class SettledLinesDto {
  done: number;
  /** Lines that are still to be decided. */
  left: number;
  /** Why lines could not be booked; none where all could. */
  failed: string[];
}
export class SettleCodeDto {
  /** What it turned out to be; absent where it is nothing of the house's. */
  @IsOptional() @IsString() @MaxLength(40) sku?: string;
  @IsOptional() @IsString() @MaxLength(40) lot?: string;
  /** How many base units one is. */
  @IsInt() @Min(1) @Max(1_000_000) factor: number;
}
export const ACCURACY_BY = ['zone', 'class', 'person', 'week'] as const;
export class AccuracyRowDto {
  key: string;
  lines: number;
  within: number;
  accuracy: number | null;
  /** Decimal text, more and less; null where costs are not to be seen. */
  more: string | null;
  less: string | null;
}
export class AccuracyDto {
  rows: AccuracyRowDto[];
  weeks: AccuracyRowDto[];
}
