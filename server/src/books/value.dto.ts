/** What there was of an item, or of a class, on a day, and what it was worth. */
export class ValueRowDto {
  /** The item's SKU, or the class. */
  key: string;
  name: string;
  /** The lot, with its date; null where items are not told apart by lot. */
  lot: string | null;
  /** Base units; of a class or site nought, since its items have units of their own. */
  units: number;
  /** The units in packs; empty of a class. */
  words: string;
  value: string;
  /** Of one unit; empty of a class. */
  each: string;
  /** The share of the whole, in hundredths of a per cent. */
  share: number;
}
/** Goods that nobody has bought for long, and what should be set aside for them. */
export class SlowRowDto {
  sku: string;
  name: string;
  words: string;
  value: string;
  /** Days since the last sale, or since they came where none was ever sold. */
  days: number;
  sold: boolean;
  percent: number;
  reserve: string;
}
export class SlowDto {
  /** Most to be set aside first. */
  rows: SlowRowDto[];
  /** What should be set aside in all, and what stands in the books. */
  reserve: string;
  booked: string;
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
