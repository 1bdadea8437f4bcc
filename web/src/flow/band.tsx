import type { Band, Feedback } from '@vectrum/core/scan';
import { Glyph, type GlyphName } from '../ui/glyph';

const WORDS: Readonly<Record<Band, string>> = {
  accepted: 'Accepted',
  'not-this': 'Not this one',
  'too-many': 'Too many',
  unknown: 'Unknown code',
};
const GLYPHS: Readonly<Record<Band, GlyphName>> = {
  accepted: 'fb-ok',
  'not-this': 'fb-wrong',
  'too-many': 'fb-many',
  unknown: 'fb-unknown',
};

/** The answer to a scan: full width, first on the screen, until the next scan. Word and shape say it before colour does. */
export function FeedbackBand({ feedback }: { feedback: Feedback | null }) {
  if (!feedback) return null;
  const { band, title, detail } = feedback;
  return (
    <section className={`bandf ${band}`} role="alert" data-band={band}>
      <Glyph name={GLYPHS[band]} />
      <h2>{band === 'accepted' ? title : WORDS[band]}</h2>
      <p>
        {band !== 'accepted' && <b>{title}. </b>}
        {detail}
      </p>
    </section>
  );
}
