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
  /** The purchase orders that it waits for. */
  waitsFor: string[];
}
export class PromiseDto {
  /** When it is to leave. */
  @DateIn() @IsDate() at: Date;
}
