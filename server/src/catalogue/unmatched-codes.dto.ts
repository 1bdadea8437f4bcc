import { IsInt, IsString, Length, Min } from 'class-validator';

/** A code that was scanned and that nothing in the house has. */
export class UnmatchedCodeDto {
  id: number;
  code: string;
  site: string;
  /** How often it was scanned. */
  times: number;
  firstAt: Date;
  lastAt: Date;
  lastBy: string;
  /** What was being done when it was last scanned; null where that was no document. */
  document: string | null;
}
export class UnmatchedCodePageDto {
  rows: UnmatchedCodeDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class MatchCodeDto {
  @IsString() @Length(1, 40) sku: string;
  /** Base units in the pack that the code is on. */
  @IsInt() @Min(1) factor: number;
}
