/** What there was of an item, or of a class, on a day, and what it was worth. */
export class ValueRowDto {
  /** The item's SKU, or the class. */
  key: string;
  name: string;
  /** Base units; of a class nought, since its items have units of their own. */
  units: number;
  /** The units in packs; empty of a class. */
  words: string;
  value: string;
  /** Of one unit; empty of a class. */
  each: string;
  /** The share of the whole, in hundredths of a per cent. */
  share: number;
}
export class AgeDto {
  says: string;
  value: string;
}
export class ValuePageDto {
  rows: ValueRowDto[];
  total: number;
  value: string;
  /** How long what is there has been there, oldest last; empty for a day that is over. */
  ages: AgeDto[];
}
