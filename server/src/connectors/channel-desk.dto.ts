import { IsString, Length, Matches } from 'class-validator';
import { PRICE } from '../channels/index.js';

export class TakenInDto {
  code: string;
  /** True where it said nothing new. */
  known: boolean;
  /** order, change or cancel. */
  what: string;
}
export class ExchangeRowDto {
  id: number;
  at: Date;
  /** in: the channel said it; out: we did. */
  direction: string;
  what: string;
  ref: string | null;
  /** well, again (it said nothing new), parked or failed. */
  went: string;
  detail: string;
}
export class ExchangePageDto {
  rows: ExchangeRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class ExchangeDto extends ExchangeRowDto {
  raw: string | null;
}
export class BeliefDto {
  channelSku: string;
  sku: string;
  name: string;
  /** What may be sold by now. */
  units: number;
  /** What it was told last, and when. */
  told: number | null;
  toldAt: Date | null;
  /** What it said that it believes, and when it was asked. */
  believes: number | null;
  believedAt: Date | null;
  /** Whether a change of it waits to be told. */
  due: boolean;
}
export class AskedDto {
  /** How many messages came, listings were compared, or pushes were set going. */
  count: number;
}
export class TakenFileDto {
  /** Orders that came in or changed, those that said nothing new, and those that were put aside to be mended. */
  taken: string[];
  known: number;
  parked: number;
}
export class OfferDto {
  channelSku: string;
  title: string;
  price: string;
  barcode: string | null;
  /** The item it is linked to already, or the one that is proposed; null where one would be made. */
  sku: string | null;
  name: string | null;
  /** linked, barcode, sku or name: why it is proposed; new where an item would be made of it. */
  by: string;
  factor: number;
}
export class UnlistedDto {
  sku: string;
  name: string;
  /** What is free at the sites that the channel sells from. */
  units: number;
  /** What another channel asks for it; null where none does. */
  price: string | null;
}
export class UnlistedPageDto {
  rows: UnlistedDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class ListItemDto {
  @IsString() @Length(1, 40) sku: string;
  @Matches(PRICE, { message: 'A price is a number of up to 6 decimal places' }) price: string;
}
export class TakeOfferDto {
  @IsString() @Length(1, 60) channelSku: string;
  /** The item that it is linked to; empty where one is made of it. */
  @IsString() @Length(0, 40) sku: string;
}
