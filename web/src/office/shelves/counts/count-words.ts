import type { Dto } from '../../../api/client';
import type { GlyphName } from '../../../ui/glyph';

type State = Dto['CountRowDto']['state'];
type By = Dto['DrawUpDto']['by'];

const SAYS: Readonly<Record<State, string>> = {
  'drawn-up': 'drawn up, not open yet',
  open: 'being counted',
  review: 'to be decided on',
  closed: 'closed',
  dropped: 'let go',
};
const GLYPHS: Readonly<Record<State, GlyphName>> = {
  'drawn-up': 'empty',
  open: 'quarter',
  review: 'half',
  closed: 'full',
  dropped: 'blocked',
};

/** Where a count stands, in words. */
export const countState = (state: State): string => SAYS[state];
export const countGlyph = (state: State): GlyphName => GLYPHS[state];

/** What a count can be drawn up by: how it is said, and what is asked for. */
export const DRAWN_BY: readonly { by: By; says: string; asks: string; about: string }[] = [
  { by: 'area', says: 'Aisles and zones', asks: '', about: 'Every bin of them, with all that lies in it.' },
  {
    by: 'plan',
    says: 'What is due by plan',
    asks: '',
    about: 'Goods whose turn it is by the rules for counts, the longest overdue first.',
  },
  {
    by: 'suspicion',
    says: 'Bins in doubt',
    asks: '',
    about: 'Where pickers found too few twice, or a count has differed in the last 60 days.',
  },
  { by: 'value', says: 'Bins worth most', asks: '', about: 'The bins with the most worth in them.' },
  { by: 'bins', says: 'These bins', asks: 'Bins', about: 'With all that lies in them.' },
  { by: 'items', says: 'These items', asks: 'SKUs', about: 'In every bin that has them, and nothing else in it.' },
  { by: 'class', says: 'Classes', asks: 'Classes', about: 'Their items in every bin that has them.' },
  { by: 'lot', says: 'A lot', asks: 'Lots', about: 'In every bin that has it.' },
  { by: 'supplier', says: 'Goods of a supplier', asks: 'Suppliers, by code', about: 'In every bin that has them.' },
  { by: 'field', says: 'An own field', asks: 'Field, then what it holds', about: 'Items of which the field holds just that.' },
];

/** Words that were typed, apart by comma or line. */
export const wordsOf = (text: string): string[] =>
  text
    .split(/[,;\n]/)
    .map((w) => w.trim())
    .filter(Boolean);
