import { ApiProperty } from '@nestjs/swagger';
import { TROUBLES } from '@vectrum/core/tracking';
import { IsIn, IsString, Length, Matches, MaxLength } from 'class-validator';

const AMOUNT = /^\d{1,9}(\.\d{1,2})?$/;
export const CLAIM_STATES = ['open', 'claimed', 'settled', 'dropped'] as const;

export class RefusedEventDto {
  index: number;
  why: string;
}
/** What became of a carrier's message. */
export class HeardDto {
  /** Events that said something new. */
  taken: number;
  /** Events of parcels that are not ours. */
  unknown: number;
  refused: RefusedEventDto[];
}
export class ParcelEventDto {
  what: string;
  note: string;
  at: Date;
}
export class ClaimRowDto {
  id: number;
  parcel: string;
  order: string;
  customer: string;
  carrier: string | null;
  tracking: string | null;
  kind: string;
  @ApiProperty({ enum: CLAIM_STATES }) state: (typeof CLAIM_STATES)[number];
  note: string;
  /** What the carrier was asked for, and what it paid, in the company's currency. */
  asked: string | null;
  paid: string | null;
  openedAt: Date;
  version: number;
}
export class ClaimPageDto {
  rows: ClaimRowDto[];
  total: number;
}
export class ClaimDto extends ClaimRowDto {
  email: string;
  phone: string;
  /** What the goods in it were sold for. */
  worth: string;
  handedOverAt: Date | null;
  events: ParcelEventDto[];
}
export class OpenClaimDto {
  @IsString() @Length(1, 40, { message: 'Name the parcel' }) parcel: string;
  @ApiProperty({ enum: TROUBLES }) @IsIn(TROUBLES, { message: `One of ${TROUBLES.join(', ')}` }) kind: (typeof TROUBLES)[number];
  @IsString() @MaxLength(300) note: string;
}
export class AskDto {
  @Matches(AMOUNT, { message: 'An amount, such as 24.50' }) amount: string;
  @IsString() @MaxLength(300) note: string;
}
export class TellDto {
  @IsString() @MaxLength(600) note: string;
}
export class ToldDto {
  to: string;
}
export class DropDto {
  @IsString() @Length(1, 300, { message: 'Say why nothing is claimed' }) note: string;
}
