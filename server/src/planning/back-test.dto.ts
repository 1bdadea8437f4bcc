/** How a rule would have done over the last year. */
export class RuleOutcomeDto {
  /** As planned here; so many weeks' cover, as on a spreadsheet; points set by hand. */
  rule: 'planned' | 'cover' | 'fixed';
  items: number;
  /** Of what was asked for. */
  metPercent: number;
  orders: number;
  /** What lay there on average. */
  stockValue: string;
  /** Ordering and holding. */
  cost: string;
}
export class BackTestDto {
  id: number;
  askedAt: Date;
  by: string;
  total: number;
  done: number;
  isOver: boolean;
  rules: RuleOutcomeDto[];
}
export class FarOffDto {
  sku: string;
  name: string;
  on: string;
  expected: number;
  asked: number;
}
/** What became of proposals that were taken and are over. */
export class TruthDto {
  proposals: number;
  /** Of them, those within a third of what was asked for. */
  right: number;
  /** Units expected, and asked for, until the next could come. */
  expected: number;
  asked: number;
  /** Taken as they were proposed. */
  asProposed: number;
  farthest: FarOffDto[];
}
export class LatestBackTestDto {
  /** Null where nobody has asked for one. */
  latest: BackTestDto | null;
  truth: TruthDto;
}
