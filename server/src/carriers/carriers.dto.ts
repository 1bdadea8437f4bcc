export class RateDto {
  carrier: string;
  carrierName: string;
  service: string;
  name: string;
  price: string;
  days: number;
}
