export class OrderLineDto {
  line: number;
  channelSku: string;
  /** How many were ordered, each of `factor` base units, and what that pack is called; price is that of one. */
  quantity: number;
  factor: number;
  pack: string | null;
  /** The line of the kit that it is a part of; null for what was ordered itself. */
  kit: number | null;
  /** Whether it is a kit, which is picked by its parts. */
  isKit: boolean;
  sku: string | null;
  name: string | null;
  picture: string | null;
  unit: string | null;
  units: string | null;
  wanted: number;
  reserved: number;
  picked: number;
  packed: number;
  shipped: number;
  price: string;
  /** It goes along where there is some, and never holds up the order. */
  insert: boolean;
  /** Added by the house's rules, asked for by nobody. */
  along: boolean;
  /** Units of it that were left out at the packing table. */
  leftOut: number;
  /** Available at the order's site. */
  free: number;
}
export class OrderRowDto {
  code: string;
  customer: string;
  channel: string;
  state: string;
  holdReason: string | null;
  promisedAt: Date;
  /** The departure that it must catch, by the calendar of its site; null once it has gone. */
  leavesAt: Date | null;
  late: boolean;
  /** One word for each line: none, part, ready, gone, unknown. */
  stock: string[];
  /** Its goods in a few words: the first two, and how many more. */
  holds: string;
  /** What the customer pays for them. */
  worth: string;
  /** Who has it in hand; null where nobody has. */
  who: string | null;
}
/** How many orders are not over, and of those how many are urgent, ready, short of stock, or stuck. */
export class OrderCountsDto {
  all: number;
  urgent: number;
  ready: number;
  short: number;
  stuck: number;
}
export class OrderPageDto {
  rows: OrderRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
  counts: OrderCountsDto;
}
export class ParcelDto {
  code: string;
  state: string;
  carton: string | null;
  weightG: number | null;
  carrier: string | null;
  service: string | null;
  tracking: string | null;
  /** The carrier's own number of a booked collection. */
  booking: string | null;
  /** Why its weight is right although it is not as expected; null where it is as expected. */
  weightWhy: string | null;
  /** Whether there is a picture of what lies in it. */
  hasPicture: boolean;
  /** What its carrier said of it last, and of when. */
  travel: string | null;
  travelAt: Date | null;
}
/** What makes an order wait for somebody. */
export class OrderHoldDto {
  id: number;
  /** code, address, payment, stock, check or other. */
  kind: string;
  reason: string;
  owner: string | null;
  setBy: string | null;
  setAt: Date;
  /** Whether it goes by itself once what is wrong is mended. */
  own: boolean;
}
export class OrderDto {
  code: string;
  channel: string;
  channelCode: string;
  channelRef: string;
  siteId: number;
  site: string;
  /** Whether anybody walks rounds at its site; otherwise it is packed from the shelf. */
  picks: boolean;
  state: string;
  /** Invoices and credit notes about it. */
  invoices: string[];
  /** What its customer sends back, or has sent back. */
  returns: string[];
  holdReason: string | null;
  holds: OrderHoldDto[];
  /** The account of the customer; null where there is none. */
  account: string | null;
  customer: string;
  email: string;
  phone: string;
  priority: number;
  wholeOnly: boolean;
  quotedUntil: string | null;
  cancelledWhy: string | null;
  /** What the customer pays for the goods. */
  worth: string;
  addressLine: string;
  city: string;
  postcode: string;
  country: string;
  placedAt: Date;
  promisedAt: Date;
  /** The departure that it must catch, by the calendar of its site; null once it has gone. */
  leavesAt: Date | null;
  late: boolean;
  speed: string;
  notePacker: string | null;
  notePicker: string | null;
  shippedAt: Date | null;
  /** Weight of the goods in grams, as far as it is known. */
  weightG: number;
  round: string | null;
  /** Whether more is promised to an order at work, which can be sent after the rest. */
  canFollow: boolean;
  /** Why it cannot be sent to picking; null where it can. */
  cannotRelease: string | null;
  lines: OrderLineDto[];
  parcels: ParcelDto[];
  version: number;
}
export class ReleasedDto {
  /** The first round, and all of them: one for each site that the order ships from. */
  round: string;
  rounds: string[];
}
/** What would let a line be picked. */
export class CureDto {
  /** put-away, refill, count, inspect, arrival, on-the-road or transfer. */
  kind: string;
  units: number;
  /** The place, the purchase order, the transfer or the other site. */
  where: string;
  /** The day on which it is expected. */
  on: string | null;
}
export class LineCuresDto {
  line: number;
  /** What is not promised to it yet; nought where it is only not where a picker goes. */
  lacks: number;
  cures: CureDto[];
}
