import { ApiProperty } from '@nestjs/swagger';

/** A line that is due, or goods of one that came in. */
export class InboundLineDto {
  /** The day on which it is due, or came in at the site; null where no day was said. */
  day: string | null;
  @ApiProperty({ type: String, nullable: true }) order: string | null;
  line: number | null;
  /** The arrival that it came in with; null where it has not come. */
  arrival: string | null;
  supplier: string;
  site: string;
  sku: string;
  name: string;
  picture: string;
  units: number;
  /** The same in packs. */
  words: string;
  /** Due before today, and not here. */
  late: boolean;
  /** Who booked it in; null where it has not come. */
  by: string | null;
  /** How it came in: ordered, extra, unordered or apart; empty where it has not. */
  takenAs: string;
  /** good, damaged, held or apart; empty where it has not come. */
  condition: string;
}
export class InboundLinePageDto {
  rows: InboundLineDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
