import { CAME_AS, FATES, type Settlement } from '@vectrum/core/customer-returns';
import type { Dto } from '../../../api/client';
import type { GlyphName } from '../../../ui/glyph';

type Row = Pick<Dto['CustomerReturnRowDto'], 'state' | 'settledAs'>;

const SETTLED: Readonly<Record<Settlement, string>> = {
  refund: 'paid back',
  exchange: 'exchanged',
  repair: 'repaired',
  nothing: 'nothing paid back',
};
const WISHED: Readonly<Record<string, string>> = { refund: 'their money', exchange: 'the same again', repair: 'a repair' };

/** Where a return stands, in words. */
export function stateWords({ state, settledAs }: Row): string {
  switch (state) {
    case 'announced':
      return 'announced, not here yet';
    case 'here':
      return 'here, to be decided';
    case 'settled':
      return settledAs ? SETTLED[settledAs] : 'settled';
    case 'called-off':
      return 'called off';
  }
}

export const stateGlyph = (state: Row['state']): GlyphName =>
  (({ announced: 'empty', here: 'half', settled: 'full', 'called-off': 'undo' }) as const)[state];

export const wishWords = (wish: string | null): string => (wish ? (WISHED[wish] ?? wish) : 'nothing said');

/** How a piece came back and what became of it. */
export function pieceWords(p: Dto['CameBackDto']): string {
  const now = p.givenBack ? 'with the customer again' : `${FATES[p.fate].toLowerCase()}${p.fate === 'scrap' ? '' : `, ${p.place}`}`;
  return `${CAME_AS[p.cameAs].toLowerCase()}: ${now}`;
}

/** What a settlement does, as the key that does it says. */
export const SETTLE_WORDS: Readonly<Record<Settlement, string>> = {
  refund: 'Pay it back',
  exchange: 'Send the same again',
  repair: 'Give it back repaired',
  nothing: 'Pay nothing back',
};
