import { code128, drawingSVG, qrcode } from 'bwip-js/browser';

export type Drawing = 'code128' | 'qrcode';

/** A code as the source of a picture: bars that fill whatever box they are given, or a square. */
export function draw(kind: Drawing, text: string): string {
  const svg =
    kind === 'qrcode'
      ? qrcode({ bcid: 'qrcode', text, padding: 2 }, drawingSVG())
      : code128({ bcid: 'code128', text, height: 10, includetext: false }, drawingSVG()).replace(
          '<svg ',
          '<svg preserveAspectRatio="none" ',
        );
  return `data:image/svg+xml;utf8,${encodeURIComponent(svg)}`;
}
