import { ApiProperty } from '@nestjs/swagger';
import { IsDate } from 'class-validator';
import { DateIn } from '../platform/index.js';

const KINDS = ['together', 'split', 'in parts', 'fetched'] as const;

/** Units of a line that go with a van. */
export class SendingLineDto {
  line: number;
  units: number;
}
/** What of an order leaves a site with one van. */
export class OrderSendingDto {
  siteId: number;
  lines: SendingLineDto[];
  site: string;
  leavesAt: Date;
  pieces: number;
}
/** Goods of one item that must come from another site first. */
export class OrderFetchDto {
  siteId: number;
  site: string;
  itemId: number;
  pieces: number;
  /** When they are free there. */
  at: Date;
}
/** What a way waits for. */
export class AwaitedDto {
  code: string;
  @ApiProperty({ enum: ['order', 'transfer'] }) kind: 'order' | 'transfer';
}
/** One way in which an order could go without eating what is promised to others. */
export class OrderWayDto {
  @ApiProperty({ enum: KINDS }) kind: (typeof KINDS)[number];
  /** When the last of it leaves. */
  wholeAt: Date;
  /** Later than it is promised. */
  late: boolean;
  /** All of it leaves the site that the order is with. */
  atOrdersSite: boolean;
  sendings: OrderSendingDto[];
  /** What comes from other sites before it leaves. */
  fetches: OrderFetchDto[];
  /** What its parcels would cost to send, by what those of late have cost; null where nobody knows. */
  carriage: string | null;
  /** The purchase orders and transfers that it waits for. */
  waitsFor: AwaitedDto[];
}
export class PromiseDto {
  /** When it is to leave. */
  @DateIn() @IsDate() at: Date;
}
