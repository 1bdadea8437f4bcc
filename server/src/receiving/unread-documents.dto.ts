import { IsString, Length } from 'class-validator';

export class UnreadDocumentRowDto {
  id: number;
  supplierCode: string;
  supplier: string;
  cameAt: Date;
  why: string;
  /** waiting, taken-in or set-aside. */
  state: string;
}
export class UnreadDocumentPageDto {
  rows: UnreadDocumentRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
  /** How many of them wait to be taken in or set aside. */
  waiting: number;
}
export class UnreadDocumentDto extends UnreadDocumentRowDto {
  /** The document as it came. */
  text: string;
  settledWhy: string | null;
  settledAt: Date | null;
  settledBy: string | null;
  version: number;
}
export class SetDocumentAsideDto {
  @IsString() @Length(1, 200, { message: 'Say why it is set aside' }) why: string;
}
