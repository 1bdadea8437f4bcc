/** What was left of sales. Amounts are without tax, in the house's money. */
export class MarginRowDto {
  key: string;
  name: string;
  orders: number;
  net: string;
  cost: string;
  margin: string;
  /** In hundredths of a per cent of what was invoiced. */
  share: number;
  /** Whether more has left than is invoiced, so that the cost is ahead. */
  ahead: boolean;
}
export class MarginDto {
  /** The least profitable first. */
  rows: MarginRowDto[];
  net: string;
  cost: string;
  margin: string;
  share: number;
}

/** What was taxed at a rate in documents of some days: credit notes are taken off. */
export class TaxRowDto {
  taxCode: string;
  percent: string;
  net: string;
  tax: string;
}
export class TaxDto {
  rows: TaxRowDto[];
  net: string;
  tax: string;
}
