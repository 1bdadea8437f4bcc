import { IsString, Length, MaxLength } from 'class-validator';

export class ParkedRowDto {
  id: number;
  channel: string;
  cameAt: Date;
  /** The channel's own number of the order, where it could be made out. */
  ref: string | null;
  why: string;
  /** waiting, taken-in or set-aside. */
  state: string;
}
export class ParkedPageDto {
  rows: ParkedRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
  /** How many of them wait to be mended or set aside. */
  waiting: number;
}
export class ParkedDto extends ParkedRowDto {
  /** The message as it came. */
  raw: string;
  /** The order that came of it. */
  order: string | null;
  settledBy: string | null;
  settledAt: Date | null;
  settledWhy: string | null;
  version: number;
}
export class MendDto {
  /** The message as it should have been. */
  @IsString() @Length(2, 1_000_000) text: string;
}
export class SetAsideDto {
  @IsString() @Length(1, 200, { message: 'Say why it is set aside' }) @MaxLength(200) why: string;
}
