import { IsInt, IsString, Length, Max, Min } from 'class-validator';
import { HowDto } from '../receiving/receiving.dto.js';

export class RoundRowDto {
  code: string;
  order: string;
  customer: string;
  state: string;
  picker: string | null;
  mine: boolean;
  stops: number;
  stopsDone: number;
  units: number;
  metres: number;
  promisedAt: Date;
  tote: string | null;
  createdAt: Date;
  shortStops: number;
}
export class TakeRoundDto {
  @IsString() @Length(1, 20) round: string;
}
export class PickDto extends HowDto {
  @IsInt() stopId: number;
  @IsInt() @Min(1) @Max(1_000_000) units: number;
  @IsInt() totePlaceId: number;
}
export class ShortDto {
  @IsInt() stopId: number;
  @IsInt() @Min(1) @Max(1_000_000) units: number;
}
export class SetDownDto {
  @IsInt() placeId: number;
}
