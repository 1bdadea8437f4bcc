import type { Dto } from '../../../api/client';
import type { GlyphName } from '../../../ui/glyph';

type Row = Pick<Dto['TransferRowDto'], 'state' | 'missing'>;

const SAYS: Readonly<Record<Row['state'], string>> = {
  requested: 'asked for',
  gathering: 'being gathered',
  'on-the-road': 'on the road',
  arriving: 'being taken in',
  received: 'taken in',
  cancelled: 'called off',
};
const GLYPHS: Readonly<Record<Row['state'], GlyphName>> = {
  requested: 'empty',
  gathering: 'quarter',
  'on-the-road': 'half',
  arriving: 'most',
  received: 'full',
  cancelled: 'blocked',
};

/** What came short waits for somebody to say who answers for it. */
export const isShort = (t: Row): boolean => t.state === 'received' && t.missing > 0;
export const transferState = (t: Row): string => (isShort(t) ? 'short, to be settled' : SAYS[t.state]);
export const transferGlyph = (t: Row): GlyphName => (isShort(t) ? 'blocked' : GLYPHS[t.state]);
