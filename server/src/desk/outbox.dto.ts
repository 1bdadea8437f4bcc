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
