import { createRequire } from 'node:module';
import bwipjs from 'bwip-js';
import PDFDocument from 'pdfkit';
import type { KeptParcel } from './state.js';

const require = createRequire(import.meta.url);
const FONT = require.resolve('dejavu-fonts-ttf/ttf/DejaVuSans.ttf');
const BOLD = require.resolve('dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf');

/** A label of 100 by 150 mm. */
export async function drawLabel(
  carrier: string,
  service: string,
  parcel: KeptParcel,
  to: { name?: string; line?: string; city?: string; postcode?: string },
  weightG: number,
): Promise<Buffer> {
  const paper = new PDFDocument({ size: [283, 425], margin: 16 });
  const parts: Buffer[] = [];
  paper.on('data', (part: Buffer) => parts.push(part));
  const done = new Promise<Buffer>((resolve) => paper.on('end', () => resolve(Buffer.concat(parts))));
  paper.registerFont('regular', FONT).registerFont('bold', BOLD);
  paper.font('bold').fontSize(16).text(carrier, 16, 16);
  paper
    .font('regular')
    .fontSize(10)
    .text(`${service}, ${(weightG / 1000).toFixed(2)} kg`, 16, 38);
  paper.moveTo(16, 58).lineTo(267, 58).lineWidth(1.5).stroke();
  paper.font('bold').fontSize(13).text([to.name, to.line, to.city, to.postcode].filter(Boolean).join('\n'), 16, 70, { lineGap: 3 });
  paper.image(await bwipjs.toBuffer({ bcid: 'code128', text: parcel.tracking, scale: 3, height: 24 }), 26, 220, { width: 231, height: 90 });
  paper.font('regular').fontSize(12).text(parcel.tracking, 16, 318, { width: 251, align: 'center' });
  paper.fontSize(9).text(`Sender’s reference ${parcel.parcel}`, 16, 380);
  paper.end();
  return done;
}
