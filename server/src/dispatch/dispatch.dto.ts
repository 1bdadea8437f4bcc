import { ArrayMaxSize, ArrayMinSize, IsArray, IsString, Length } from 'class-validator';

export class WaitingParcelDto {
  code: string;
  order: string;
  customer: string;
  siteId: number;
  state: string;
  carrier: string;
  carrierName: string;
  service: string | null;
  weightG: number | null;
  tracking: string | null;
  since: Date | null;
  promisedAt: Date;
  /** What the carrier said, where the label has not come. */
  trouble: string | null;
}
export class LaneDto {
  carrier: string;
  name: string;
  lane: string;
  siteId: number;
  /** When the carrier's next van leaves the site, by its calendar; null where none is set. */
  collectsAt: Date | null;
  parcels: WaitingParcelDto[];
}
export class HandOverDto {
  @IsString() @Length(1, 20) carrier: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Name at least one parcel' })
  @ArrayMaxSize(2000)
  @IsString({ each: true })
  parcels: string[];
}
export class HandedOverDto {
  code: string;
  parcels: number;
}
