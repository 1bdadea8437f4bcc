import { IsString, Length } from 'class-validator';

export class LetterValueDto {
  name: string;
  says: string;
  example: string;
}
export class LetterDto {
  name: string;
  label: string;
  /** When it is written. */
  when: string;
  subject: string;
  body: string;
  /** Whether the company has written words of its own. */
  isOwn: boolean;
  /** 0 while it has the words that it came with. */
  version: number;
  values: LetterValueDto[];
}
export class WriteLetterDto {
  @IsString() @Length(1, 150, { message: 'A subject of up to 150 signs' }) subject: string;
  @IsString() @Length(1, 4000, { message: 'Words of up to 4,000 signs' }) body: string;
}
