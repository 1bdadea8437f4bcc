export class OutboxRowDto {
  id: number;
  receiver: string;
  kind: string;
  document: string | null;
  state: string;
  attempts: number;
  nextAt: Date;
  lastError: string | null;
  createdAt: Date;
}
export class OutboxPageDto {
  rows: OutboxRowDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
