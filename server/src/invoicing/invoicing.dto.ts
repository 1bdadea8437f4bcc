import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsInt,
  IsISO8601,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';

/** Amounts are decimal text of two places, in the house's money. */
const MONEY = /^\d{1,12}(\.\d{1,2})?$/;
const MONEY_SAYS = { message: 'An amount is a number with up to 2 decimal places' };

/** An order of which something has left the house and is not invoiced. */
export class OpenOrderDto {
  code: string;
  /** The customer's account; null where the order has none. */
  account: string | null;
  customer: string;
  site: string;
  /** When the first of it left that is not invoiced. */
  shippedAt: Date | null;
  lines: number;
  /** Of these, how many were delivered otherwise than ordered. */
  differing: number;
  amount: string;
  /** Whether nothing of it is still to be delivered. */
  complete: boolean;
}
export class OpenOrderPageDto {
  rows: OpenOrderDto[];
  total: number;
}
/** A line as it is checked before it is invoiced: what was ordered beside what was delivered. */
export class CheckLineDto {
  order: string;
  line: number;
  sku: string;
  name: string;
  /** Base units. */
  ordered: number;
  delivered: number;
  invoiced: number;
  toInvoice: number;
  /** Each of these in packs. */
  orderedWords: string;
  deliveredWords: string;
  toInvoiceWords: string;
  price: string;
  pack: string;
  amount: string;
  taxCode: string;
  taxPercent: string;
  /** What somebody should look at; empty where it was delivered as ordered. */
  differs: string;
}
export class TaxSumDto {
  taxCode: string;
  percent: string;
  net: string;
  tax: string;
}
export class SumsDto {
  taxes: TaxSumDto[];
  net: string;
  tax: string;
  gross: string;
}
export class PreviewDto extends SumsDto {
  customer: string;
  account: string | null;
  pricesHoldTax: boolean;
  currency: string;
  dueOn: string;
  /** What it comes to in the customer's own currency, where they have one. */
  inTheirs: string | null;
  theirCurrency: string | null;
  /** What differs first. */
  lines: CheckLineDto[];
}
export class InvoiceOrdersDto {
  @IsArray() @ArrayMinSize(1, { message: 'Choose at least one order' }) @ArrayMaxSize(100) @IsString({ each: true }) orders: string[];
  /** Freight that is charged beside the goods. */
  @IsOptional() @Matches(MONEY, MONEY_SAYS) freight?: string;
  @IsOptional() @IsString() @MaxLength(12) freightTax?: string;
  @IsOptional() @Matches(/^\d{1,2}(\.\d{1,3})?$/, { message: 'A discount is per cent below 100' }) discountPercent?: string;
  @IsOptional() @IsString() @MaxLength(300) note?: string;
}
export class InvoiceRowDto {
  code: string;
  kind: 'invoice' | 'credit';
  name: string;
  issuedOn: string;
  dueOn: string;
  currency: string;
  gross: string;
  open: string;
  /** Not paid, and due before today. */
  overdue: boolean;
  sentAt: Date | null;
}
export class InvoicePageDto {
  rows: InvoiceRowDto[];
  total: number;
  /** What all customers owe, and of it what is overdue. */
  owed: string;
  overdue: string;
}
export class InvoiceLineDto {
  line: number;
  order: string | null;
  sku: string;
  name: string;
  units: number;
  words: string;
  price: string;
  pack: string;
  discountPercent: string;
  amount: string;
  taxCode: string;
  taxPercent: string;
  /** Of these units, credited already. */
  credited: number;
}
export class PaidDto {
  paymentId: number;
  paidOn: string;
  amount: string;
  says: string;
}
export class JournalLineDto {
  debit: string;
  credit: string;
  amount: string;
}
export class ShownLineDto {
  line: number;
  price: string;
  amount: string;
  /** Without tax. */
  net: string;
}
/** A document in its customer's own currency, reckoned as a document of its own; the books stay in the house's money. */
export class ShownDto extends SumsDto {
  currency: string;
  /** Home money for one of it, on the day of the document. */
  rate: string;
  open: string;
  lines: ShownLineDto[];
}
export class InvoiceDto extends SumsDto {
  shown: ShownDto | null;
  code: string;
  kind: 'invoice' | 'credit';
  name: string;
  account: string | null;
  email: string;
  addressLine: string;
  city: string;
  postcode: string;
  country: string;
  taxNumber: string;
  currency: string;
  pricesHoldTax: boolean;
  issuedOn: string;
  dueOn: string;
  note: string;
  open: string;
  overdue: boolean;
  sentAt: Date | null;
  postedBy: string;
  postedAt: Date;
  /** The invoice that a credit note is about. */
  credits: string | null;
  /** Credit notes about this invoice. */
  creditedBy: string[];
  lines: InvoiceLineDto[];
  payments: PaidDto[];
  entries: JournalLineDto[];
}
export class CreditInvoiceLineDto {
  @IsInt() @Min(1) line: number;
  @IsInt() @Min(1) @Max(10_000_000) units: number;
}
export class CreditInvoiceDto {
  @IsString() @Length(1, 300, { message: 'Say why it is credited' }) reason: string;
  /** Whether what is credited may be invoiced once more: it was invoiced wrongly, not returned. */
  @IsBoolean() again: boolean;
  @IsArray()
  @ArrayMinSize(1, { message: 'Credit at least one line' })
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => CreditInvoiceLineDto)
  lines: CreditInvoiceLineDto[];
}
export class PaymentRowDto {
  id: number;
  paidOn: string;
  amount: string;
  /** What is for no invoice yet. */
  free: string;
  says: string;
  notedBy: string;
  invoices: string[];
  /** Whether some of it went to an invoice in another currency, so that the rest may be what the rate has done. */
  foreign: boolean;
}
export class PaymentPageDto {
  rows: PaymentRowDto[];
  total: number;
}
export class NotePaymentDto {
  @IsISO8601({ strict: true }) @Length(10, 10) paidOn: string;
  @Matches(MONEY, MONEY_SAYS) amount: string;
  /** What the payer wrote. Invoices whose numbers stand in it are paid with it. */
  @IsString() @MaxLength(300) says: string;
  @IsOptional() @IsString() @Length(1, 60) bankRef?: string | null;
}
export class UsePaymentDto {
  @IsString() @Length(1, 20) invoice: string;
}
export class NotedPaymentDto {
  id: number;
  /** The invoices that it was for. */
  invoices: string[];
  free: string;
}
