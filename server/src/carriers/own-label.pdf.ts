import { barcodePng, finish, fonts } from '../paper/index.js';
import PDFDocument from 'pdfkit';
import type { Shipment } from './carrier-row.js';

const MM = 72 / 25.4;

/** A label of 100 × 150 mm for a carrier that prints none itself: who takes it, where to, and the parcel as a Code 128. */
export async function ownLabelPdf(carrier: string, service: string, { parcel, weightG, to }: Shipment): Promise<Buffer> {
  const paper = fonts(
    new PDFDocument({ size: [100 * MM, 150 * MM], margin: 6 * MM, info: { Title: `Label ${parcel}`, Creator: 'Vectrum' } }),
  );
  const left = 6 * MM;
  const width = 88 * MM;
  paper
    .font('bold')
    .fontSize(16)
    .text(carrier, left, 7 * MM, { width });
  paper
    .font('regular')
    .fontSize(11)
    .text(`${service} · ${(weightG / 1000).toFixed(2)} kg`, { width });
  paper
    .moveTo(left, 26 * MM)
    .lineTo(left + width, 26 * MM)
    .lineWidth(1.5)
    .stroke();
  paper
    .font('regular')
    .fontSize(9)
    .text('To', left, 29 * MM);
  paper.font('bold').fontSize(15).text(to.name, { width });
  paper.font('regular').fontSize(14).text(to.line, { width }).text(`${to.city}  ${to.postcode}`, { width }).text(to.country, { width });
  paper.image(await barcodePng(parcel, 24), left, 96 * MM, { fit: [width, 30 * MM], align: 'center' });
  paper
    .font('mono-bold')
    .fontSize(15)
    .text(parcel, left, 130 * MM, { width, align: 'center' });
  return finish(paper);
}
