import type { Dto } from '../../../api/client';
import type { GlyphName } from '../../../ui/glyph';

type Row = Pick<Dto['BuildRowDto'], 'state' | 'isApart'>;
const GLYPHS: Readonly<Record<Row['state'], GlyphName>> = { planned: 'empty', gathering: 'half', built: 'full', cancelled: 'blocked' };

/** Where an assembly stands, in words. */
export function buildState({ state, isApart }: Row): string {
  switch (state) {
    case 'planned':
      return 'planned';
    case 'gathering':
      return 'parts are gathered';
    case 'built':
      return isApart ? 'taken apart' : 'built';
    case 'cancelled':
      return isApart ? 'put together again' : 'called off';
  }
}
export const buildGlyph = ({ state }: Row): GlyphName => GLYPHS[state];
