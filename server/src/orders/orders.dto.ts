import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsInt, IsOptional, IsString, Length, MaxLength, Min, ValidateNested } from 'class-validator';

export class OrderLineDto {
  line: number;
  channelSku: string;
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
/** How many orders are not over, and of those how many are ready, short of stock, or stuck. */
export class OrderCountsDto {
  all: number;
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
}
export class OrderDto {
  code: string;
  channel: string;
  channelRef: string;
  siteId: number;
  site: string;
  state: string;
  holdReason: string | null;
  customer: string;
  email: string;
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
  /** Why it cannot be sent to picking; null where it can. */
  cannotRelease: string | null;
  lines: OrderLineDto[];
  parcels: ParcelDto[];
  version: number;
}
export class LinkLineDto {
  @IsInt() @Min(1) line: number;
  @IsString() @Length(1, 40) sku: string;
}
export class ClearHoldDto {
  @IsOptional() @IsString() @Length(1, 200) addressLine?: string;
  @IsOptional() @IsString() @Length(1, 80) city?: string;
  @IsOptional() @IsString() @Length(1, 16) postcode?: string;
  @IsOptional() @IsString() @MaxLength(300) notePacker?: string | null;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @ValidateNested({ each: true })
  @Type(() => LinkLineDto)
  links?: LinkLineDto[];
}
export class ReleasedDto {
  /** The first round, and all of them: one for each site that the order ships from. */
  round: string;
  rounds: string[];
}
