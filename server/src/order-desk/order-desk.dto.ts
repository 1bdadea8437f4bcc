import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsDate,
  IsEmail,
  IsIn,
  IsInt,
  IsISO8601,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { HOLD_KINDS, type HoldKind } from '../orders/index.js';
import { DateIn } from '../platform/index.js';

const PRICE = { message: 'A price is a number of up to 6 decimal places' };

export class KeyedLineDto {
  /** The number of a line that is there already; absent for a new one. */
  @IsOptional() @IsInt() @Min(1) line?: number | null;
  /** Our SKU; empty leaves a line as it is whose code nobody knows yet. */
  @IsString() @MaxLength(40) sku: string;
  /** Base units in one of what is ordered. */
  @IsInt() @Min(1) @Max(1_000_000) factor: number;
  /** How many of it; parts of a pack are decimals. */
  @Matches(/^\d{1,7}(\.\d{1,4})?$/, { message: 'A quantity is a number, such as 12 or 0.5' }) quantity: string;
  @Matches(/^\d{1,10}(\.\d{1,6})?$/, PRICE) price: string;
}
export class OrderHeadDto {
  /** The account of the customer; absent where there is none. */
  @IsOptional() @IsString() @MaxLength(20) account?: string | null;
  @IsString() @Length(1, 120, { message: 'Say who it is for' }) customer: string;
  @ValidateIf((o: OrderHeadDto) => o.email !== '')
  @IsEmail({}, { message: 'Type an e-mail address, like orders@example.org' })
  email: string;
  @IsString() @MaxLength(40) phone: string;
  @IsString() @MaxLength(200) addressLine: string;
  @IsString() @MaxLength(80) city: string;
  @IsString() @MaxLength(16) postcode: string;
  @Matches(/^[A-Z]{2}$/, { message: 'A country is two capital letters, such as GB' }) country: string;
  @IsInt() siteId: number;
  /** When it is to leave; without a time, the first van that it can catch. */
  @IsOptional() @DateIn() @IsDate({ message: 'Choose a day and a time' }) promisedAt?: Date | null;
  @Matches(/^[a-z0-9-]{1,20}$/, { message: 'Choose how fast it is to go' }) speed: string;
  /** The higher is served first. */
  @IsInt() @Min(-9) @Max(9) priority: number;
  @IsBoolean() wholeOnly: boolean;
  @IsString() @MaxLength(300) notePacker: string;
  @IsString() @MaxLength(300) notePicker: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'One line with goods and a quantity is missing' })
  @ArrayMaxSize(300, { message: 'An order has 300 lines at most' })
  @ValidateNested({ each: true })
  @Type(() => KeyedLineDto)
  lines: KeyedLineDto[];
}
export class NewOrderDto extends OrderHeadDto {
  /** The channel by which it came; without one, the telephone and counter of its site. */
  @IsOptional() @IsString() @MaxLength(20) channel?: string | null;
  /** The customer's own number. */
  @IsString() @MaxLength(60) ref: string;
  /** Whether it is only offered, and until when. */
  @IsBoolean() quote: boolean;
  @IsOptional() @IsISO8601({ strict: true }, { message: 'Choose a day' }) @Length(10, 10) quotedUntil?: string | null;
}
export class EditOrderDto extends OrderHeadDto {
  @IsString() @MaxLength(120) why: string;
}
export class EditedOrderDto {
  code: string;
  /** What the floor is asked to do about it, in words; empty where nothing. */
  floor: string;
}
export class HoldDto {
  @IsIn(HOLD_KINDS.filter((k) => k !== 'code' && k !== 'address')) kind: HoldKind;
  @IsString() @Length(1, 200, { message: 'Say what it waits for' }) reason: string;
  /** Who is to see to it. */
  @IsOptional() @IsInt() ownerId?: number | null;
}
export class OwnerDto {
  id: number;
  name: string;
}
export class ClearHoldWhyDto {
  @IsString() @MaxLength(200) why: string;
}
export class CancelDto {
  @IsString() @Length(1, 200, { message: 'Say why it is cancelled' }) why: string;
  /** Whether the customer is told by mail. */
  @IsBoolean() tell: boolean;
}
export class InPlaceDto {
  place: string;
  pieces: number;
}
export class CancellingDto {
  can: boolean;
  /** Pieces that are only promised, and those that pickers would no longer go for. */
  promised: number;
  toPick: number;
  /** What the floor would be asked to put away. */
  totes: InPlaceDto[];
  parcels: InPlaceDto[];
  /** Parcels whose labels would be void. */
  labels: string[];
  /** Pieces that have gone and stay gone. */
  gone: number;
  /** The channel that would be told, and the customer's address for mail. */
  channel: string | null;
  email: string | null;
}
export class OrderEventDto {
  at: Date;
  /** Null where nobody did: it came from outside or by itself. */
  who: string | null;
  what: string;
  detail: string;
}
export class ConfirmQuoteDto {
  @IsOptional() @DateIn() @IsDate() promisedAt?: Date | null;
}
export class OtherSiteDto {
  site: string;
  free: number;
}
export class GoodsFactsDto {
  sku: string;
  name: string;
  picture: string;
  packs: GoodsPackDto[];
  /** Free at the site that was asked about, and elsewhere. */
  free: number;
  elsewhere: OtherSiteDto[];
  /** When more comes there, and how much; null where nothing is on order. */
  moreOn: string | null;
  more: number | null;
  /** What the customer pays for one of the first pack asked: their own price, otherwise what the channel asks. */
  prices: GoodsPriceDto[];
}
export class GoodsPackDto {
  factor: number;
  name: string;
  plural: string;
}
export class GoodsPriceDto {
  factor: number;
  price: string;
  /** The customer's own price, what they paid the last time, or the channel's. */
  from: 'own' | 'last' | 'channel';
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
/** An order that holds goods which another lacks. */
export class HolderDto {
  code: string;
  customer: string;
  promisedAt: Date;
  line: number;
  units: number;
}
export class LineHoldersDto {
  lacks: number;
  holders: HolderDto[];
}
export class TakeFromDto {
  @IsString() @Length(1, 20) order: string;
  @IsInt() @Min(1) line: number;
  @IsInt({ message: 'Type how many' }) @Min(1, { message: 'Type how many' }) @Max(1_000_000) units: number;
}
export class BulkDto {
  @IsIn(['release', 'hold', 'promise']) what: 'release' | 'hold' | 'promise';
  @IsArray()
  @ArrayMinSize(1, { message: 'Choose some orders' })
  @ArrayMaxSize(200, { message: 'No more than 200 at once' })
  @IsString({ each: true })
  @Length(1, 20, { each: true })
  orders: string[];
  /** Whether it is only looked at what it would do. */
  @IsBoolean() preview: boolean;
  /** What held orders wait for. */
  @IsOptional() @IsString() @MaxLength(200) reason?: string | null;
  /** What orders are promised for. */
  @IsOptional() @DateIn() @IsDate() at?: Date | null;
}
export class BulkLineDto {
  code: string;
  customer: string;
  /** Whether it can be done, or was; otherwise `says` is why not. */
  can: boolean;
  says: string;
}
export class ProjectionStepDto {
  at: Date;
  /** What may be promised from then on; below nought where more is promised than there will be. */
  units: number;
}
export class ProjectionFlowDto {
  at: Date;
  /** What comes, or goes where it is below nought. */
  units: number;
  document: string;
  who: string;
}
export class ProjectionDto {
  sku: string;
  name: string;
  /** What is free now. */
  free: number;
  steps: ProjectionStepDto[];
  flows: ProjectionFlowDto[];
}
/** An order whose promise a late arrival breaks. */
export class HitDto {
  code: string;
  customer: string;
  email: string;
  phone: string;
  promisedAt: Date;
  /** When its goods would be there; null where nothing that is known of brings them. */
  freeAt: Date | null;
}
export class WriteLettersDto {
  @Matches(/^\d{4}-\d\d-\d\d$/, { message: 'Choose a day' }) on: string;
  @IsArray() @ArrayMinSize(1, { message: 'Choose some orders' }) @ArrayMaxSize(200) @IsString({ each: true }) orders: string[];
}
export class LettersDto {
  written: number;
  toRing: number;
}
export class SplitLineDto {
  @IsInt() @Min(1) line: number;
  /** Base units that go onto the new order. */
  @IsInt({ message: 'Type how many' }) @Min(1, { message: 'Type how many' }) @Max(10_000_000) units: number;
}
/** What was asked of other sites for an order. */
export class FetchedDto {
  code: string;
  /** The transfers that bring it. */
  transfers: string[];
}
export class SplitDto {
  /** Where the new order ships from. */
  @IsInt() siteId: number;
  @IsArray()
  @ArrayMinSize(1, { message: 'Choose what goes onto an order of its own' })
  @ArrayMaxSize(300)
  @ValidateNested({ each: true })
  @Type(() => SplitLineDto)
  lines: SplitLineDto[];
}
export class MergeDto {
  /** The order whose lines come into this one. */
  @IsString() @Length(1, 20) other: string;
}
/** Another order of the same customer that could travel with this. */
export class SiblingDto {
  code: string;
  promisedAt: Date;
  lines: number;
}
