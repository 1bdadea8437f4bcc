import { checkDigit, hasCheckDigit } from '../barcode/index.js';
import type { Symbology } from './types.js';

/** What a barcode writer is asked for: its own name of the symbology, and the text. */
export interface DrawnBarcode {
  writer: 'code128' | 'gs1-128' | 'ean13' | 'ean8' | 'datamatrix' | 'gs1datamatrix' | 'qrcode' | 'gs1qrcode';
  text: string;
  /** Square symbols keep their shape. */
  square: boolean;
}

const bracketed = (value: string) => /^\(\d{2,4}\)/.test(value);

/** Code 128 holds no letters with marks; what has some is drawn as QR, which every camera and area scanner reads. */
const linear = (text: string): DrawnBarcode =>
  /^[\x20-\x7e]*$/.test(text) ? { writer: 'code128', text, square: false } : { writer: 'qrcode', text, square: true };

/**
 * How a value is drawn. An EAN that the value cannot be (letters, a wrong check digit, a pack's 14 digits) is drawn as
 * Code 128, so that a label is never without its barcode; null where there is nothing to draw.
 */
export function barcodeOf(symbology: Symbology, value: string): DrawnBarcode | null {
  const text = value.trim();
  if (text === '') return null;
  switch (symbology) {
    case 'ean': {
      const digits = /^0\d{13}$/.test(text) ? text.slice(1) : text;
      if (/^\d{13}$/.test(digits) && hasCheckDigit(digits)) return { writer: 'ean13', text: digits, square: false };
      if (/^\d{8}$/.test(digits) && hasCheckDigit(digits)) return { writer: 'ean8', text: digits, square: false };
      if (/^\d{14}$/.test(text) && hasCheckDigit(text)) return { writer: 'gs1-128', text: `(01)${text}`, square: false };
      return linear(text);
    }
    case 'gs1-128':
      return bracketed(text) ? { writer: 'gs1-128', text, square: false } : linear(text);
    case 'code-128':
      return linear(text);
    case 'data-matrix':
      return { writer: bracketed(text) ? 'gs1datamatrix' : 'datamatrix', text, square: true };
    case 'qr':
      return { writer: bracketed(text) ? 'gs1qrcode' : 'qrcode', text, square: true };
  }
}

/** GS1 data in brackets for a label: the GTIN (brought to 14 digits), then lot and date; '' where the code is no GTIN. */
export function gs1Text(code: string, lot: string | null, expires: string | null): string {
  const digits = /^\d{8}$|^\d{12,14}$/.test(code) ? code.padStart(14, '0') : '';
  if (digits === '' || checkDigit(digits.slice(0, 13)) !== Number(digits[13])) return '';
  const date = expires && /^\d{4}-\d{2}-\d{2}$/.test(expires) ? `(17)${expires.slice(2, 4)}${expires.slice(5, 7)}${expires.slice(8)}` : '';
  return `(01)${digits}${date}${lot ? `(10)${lot}` : ''}`;
}
