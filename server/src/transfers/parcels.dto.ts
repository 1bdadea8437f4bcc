import { ApiProperty } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import { IsInt, IsString, Length, Max, Min, ValidateIf, ValidateNested } from 'class-validator';

export const TRANSFER_PARCEL_STATES = ['packed', 'label-asked', 'labelled'] as const;

export class TransferServiceDto {
  @IsString() @Length(1, 20) carrier: string;
  @IsString() @Length(1, 40) code: string;
}
export class PackTransferDto {
  @IsInt() @Min(1) @Max(2_000_000) weightG: number;
  /** One of our boxes; null for none of them. */
  @ValidateIf((_, value) => value !== null) @IsString() @Length(1, 20) box: string | null;
  /** The carrier's service that it goes by; null where it goes without a label, as in one's own van. */
  @ValidateIf((_, value) => value !== null) @ValidateNested() @Type(() => TransferServiceDto) service: TransferServiceDto | null;
}
/** A parcel in which goods go to another site. */
export class TransferParcelDto {
  code: string;
  @ApiProperty({ enum: TRANSFER_PARCEL_STATES }) state: (typeof TRANSFER_PARCEL_STATES)[number];
  weightG: number;
  box: string | null;
  /** The carrier's name; null where it goes without a label. */
  carrier: string | null;
  service: string | null;
  tracking: string | null;
  /** What the label costs, in the home currency; null where none is there, or costs are not to be seen. */
  price: string | null;
  /** Why the label has not come yet, in the carrier's words. */
  problem: string | null;
  /** When it was scanned at the site that it goes to. */
  hereAt: Date | null;
}
