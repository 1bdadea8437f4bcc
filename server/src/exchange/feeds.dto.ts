import { IsString, Length, Matches } from 'class-validator';

export class FeedKeyDto {
  id: number;
  name: string;
  madeAt: Date;
  /** When it was last used, to the minute; null where it never was. */
  usedAt: Date | null;
}
export class NameFeedKeyDto {
  @IsString()
  @Length(1, 60, { message: 'Say what reads with it, in up to 60 letters' })
  @Matches(/\S/, { message: 'Say what reads with it, in up to 60 letters' })
  name: string;
}
export class NewFeedKeyDto {
  id: number;
  /** Told this once; null where the act was said again. */
  key: string | null;
}
