import { code128, drawingSVG, gs1_128, gs1datamatrix, qrcode } from 'bwip-js/browser';

export type Drawing = 'code128' | 'qrcode' | 'gs1-128' | 'gs1datamatrix';

const FILLS = '<svg preserveAspectRatio="none" ';

/** A code as the source of a picture: bars that fill whatever box they are given, or a square. */
export function draw(kind: Drawing, text: string): string {
  return `data:image/svg+xml;utf8,${encodeURIComponent(svgOf(kind, text))}`;
}

function svgOf(kind: Drawing, text: string): string {
  switch (kind) {
    case 'qrcode':
      return qrcode({ bcid: kind, text, padding: 2 }, drawingSVG());
    case 'gs1datamatrix':
      return gs1datamatrix({ bcid: kind, text, padding: 2 }, drawingSVG());
    case 'gs1-128':
      return gs1_128({ bcid: kind, text, height: 10, includetext: false }, drawingSVG()).replace('<svg ', FILLS);
    case 'code128':
      return code128({ bcid: kind, text, height: 10, includetext: false }, drawingSVG()).replace('<svg ', FILLS);
  }
}
