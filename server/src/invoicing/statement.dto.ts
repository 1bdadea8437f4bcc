export class StatementRowDto {
  code: string;
  kind: 'invoice' | 'credit';
  issuedOn: string;
  dueOn: string;
  gross: string;
  /** What is left of it; below nought where the customer has it coming. */
  open: string;
  daysLate: number;
}
export class StatementAgeDto {
  says: string;
  amount: string;
}
/** What a customer owes on a day. */
export class StatementDto {
  account: string;
  name: string;
  email: string;
  address: string[];
  asOf: string;
  currency: string;
  /** The oldest first. */
  rows: StatementRowDto[];
  ages: StatementAgeDto[];
  owed: string;
}
