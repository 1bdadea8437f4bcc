import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsISO8601, IsString, Length, Matches, MaxLength, ValidateNested } from 'class-validator';

/** An entry of the journal: an amount that goes from one account to another. */
export class JournalEntryDto {
  id: number;
  at: Date;
  document: string | null;
  sku: string | null;
  item: string | null;
  debit: string;
  credit: string;
  amount: string;
  /** The export that it went out with; null while it has not. */
  export: string | null;
}
export class JournalPageDto {
  rows: JournalEntryDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
/** What stands on an account: all that was ever posted to it, and in the days that were asked for. */
export class AccountDto {
  account: string;
  /** The account of the company's own chart; empty where none was said. */
  number: string;
  name: string;
  debit: string;
  credit: string;
  balance: string;
}
export class AccountsDto {
  version: number;
  accounts: AccountDto[];
  /** What stock is worth by its pools, beside what stands on its account. They are the same to the last digit. */
  stockWorth: string;
  stockAccount: string;
}
export class OwnAccountDto {
  @IsString() @Length(1, 24) account: string;
  @Matches(/^[0-9A-Za-z.-]{0,20}$/, { message: 'An account number is up to 20 digits, letters, points and hyphens' }) number: string;
  @IsString() @MaxLength(80) name: string;
}
export class MapAccountsDto {
  @IsArray() @ArrayMaxSize(40) @ValidateNested({ each: true }) @Type(() => OwnAccountDto) accounts: OwnAccountDto[];
}
export class ExportJournalDto {
  /** Entries up to the end of this day go out. */
  @IsISO8601({ strict: true }) @Length(10, 10) through: string;
}
export class ExportPreviewDto {
  entries: number;
  amount: string;
  /** The first and last day of what would go out; null where there is nothing. */
  from: Date | null;
  to: Date | null;
  /** Accounts that entries stand on and that the company has not named. */
  unnamed: string[];
}
export class JournalExportDto {
  code: string;
  throughOn: string;
  entries: number;
  amount: string;
  by: string;
  at: Date;
}
export class JournalExportPageDto {
  rows: JournalExportDto[];
  total: number;
}
