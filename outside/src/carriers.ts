import { createRequire } from 'node:module';
import bwipjs from 'bwip-js';
import PDFDocument from 'pdfkit';
import { json, Refused } from './http.js';
import { behave, type KeptParcel, type WorldState } from './state.js';

const require = createRequire(import.meta.url);
const FONT = require.resolve('dejavu-fonts-ttf/ttf/DejaVuSans.ttf');
const BOLD = require.resolve('dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf');

interface Service {
  service: string;
  name: string;
  days: number;
  /** Highest weight in grams and price, lightest first. */
  bands: readonly (readonly [number, string])[];
}
interface Carrier {
  name: string;
  prefix: string;
  /** The longest side that it takes. */
  longestMm: number;
  /** Cubic millimetres that cost as much as a gram; none where only weight counts. */
  mm3PerG?: number;
  /** Where it is far to go, and what that adds. */
  remote?: { where: RegExp; price: string };
  services: readonly Service[];
}

const CARRIERS: Readonly<Record<string, Carrier>> = {
  harrier: {
    name: 'Harrier Post',
    prefix: 'HP',
    longestMm: 1_000,
    mm3PerG: 8_000,
    remote: { where: /^(IV|KW|ZE|HS)/i, price: '4.50' },
    services: [
      {
        service: 'parcel-48',
        name: 'Parcel, two days',
        days: 2,
        bands: [
          [1000, '2.85'],
          [2000, '3.60'],
          [5000, '5.20'],
          [10000, '7.40'],
          [20000, '11.90'],
          [30000, '16.50'],
        ],
      },
      {
        service: 'parcel-24',
        name: 'Parcel, next day',
        days: 1,
        bands: [
          [1000, '4.10'],
          [2000, '5.30'],
          [5000, '7.80'],
          [10000, '10.60'],
          [20000, '16.40'],
        ],
      },
    ],
  },
  northway: {
    name: 'Northway Freight',
    prefix: 'NF',
    longestMm: 2_400,
    services: [
      {
        service: 'pallet-day',
        name: 'Pallet, next working day',
        days: 1,
        bands: [
          [250000, '42.00'],
          [1000000, '68.00'],
        ],
      },
    ],
  },
};

/** What a carrier asks for a parcel, with what it adds; null where it does not take it. */
function costOf(carrier: Carrier, service: Service, asked: Record<string, unknown>) {
  const weight = Number(asked['weightG']);
  if (!Number.isFinite(weight) || weight <= 0) return null;
  const size = Array.isArray(asked['sizeMm']) ? asked['sizeMm'].map(Number) : [0, 0, 0];
  if (Math.max(...size) > carrier.longestMm) return null;
  // Large and light costs as much as its room would weigh.
  const room = carrier.mm3PerG ? size.reduce((a, b) => a * b, 1) / carrier.mm3PerG : 0;
  const band = service.bands.find(([most]) => Math.max(weight, room) <= most)?.[1];
  if (!band) return null;
  const { postcode = '' } = (asked['to'] ?? {}) as { postcode?: string };
  const surcharges = carrier.remote && carrier.remote.where.test(postcode) ? [{ name: 'remote area', price: carrier.remote.price }] : [];
  const pence = [band, ...surcharges.map((x) => x.price)].reduce((sum, p) => sum + Math.round(Number(p) * 100), 0);
  return { price: (pence / 100).toFixed(2), surcharges };
}

/** Labels from before there were references are known by their parcel. */
const isOf = (label: KeptParcel, reference: string) => (label.reference ?? label.parcel) === reference;

const VOID = 'given back';
const STEPS = ['label made', 'collected', 'at the depot', 'out for delivery', 'delivered'] as const;

/** The carriers: rates by weight band, labels as PDF, parcels that move on. */
export class Carriers {
  constructor(
    private readonly state: WorldState,
    private readonly key: string,
  ) {}

  mustKnow(authorization: string | undefined): void {
    if (authorization !== `Bearer ${this.key}`) throw new Refused(401, 'This key is not known');
  }

  async rates(code: string, body: string) {
    await behave(this.state.world.manners.carriers);
    const carrier = this.carrier(code);
    const asked = json(body);
    const rates = carrier.services.flatMap((s) => {
      const cost = costOf(carrier, s, asked);
      return cost ? [{ service: s.service, name: s.name, days: s.days, ...cost }] : [];
    });
    return { rates };
  }

  /** Sells a label; the same parcel gets the same label again. */
  async label(code: string, body: string) {
    await behave(this.state.world.manners.carriers);
    const carrier = this.carrier(code);
    const asked = json(body);
    const to = asked['to'] as { name?: string; line?: string; city?: string; postcode?: string } | undefined;
    const service = carrier.services.find((s) => s.service === asked['service']);
    const price = service && costOf(carrier, service, asked)?.price;
    if (!service || !price || !to?.postcode) throw new Refused(422, 'Service, weight, size or address do not fit');
    const parcel = String(asked['parcel']);
    const reference = String(asked['reference'] ?? parcel);
    const { parcels } = this.state.world;
    let kept = parcels.find((p) => isOf(p, reference) && p.carrier === carrier.name);
    if (!kept) {
      const number = String(10_000_000 + parcels.length * 7919).slice(0, 8);
      kept = {
        parcel,
        reference,
        carrier: carrier.name,
        tracking: `${carrier.prefix}${number}GB`,
        service: service.name,
        price,
        to: `${to.name ?? ''}, ${to.postcode}`,
        steps: [{ at: new Date().toISOString(), what: STEPS[0] }],
      };
      parcels.push(kept);
      this.state.changed();
    }
    const pdf = await drawLabel(carrier.name, service.name, kept, to, Number(asked['weightG']));
    return { tracking: kept.tracking, price: kept.price, pdf: pdf.toString('base64') };
  }

  /** Takes a label back that was not used. One that was collected already stays as it is. */
  async takeBack(code: string, body: string): Promise<object> {
    await behave(this.state.world.manners.carriers);
    const carrier = this.carrier(code);
    const { reference } = json(body);
    const kept = this.state.world.parcels.find((p) => isOf(p, String(reference)) && p.carrier === carrier.name);
    if (!kept) throw new Refused(404, 'This label is not known');
    if (kept.steps.length > 1 && kept.steps.at(-1)?.what !== VOID) throw new Refused(409, 'This parcel was collected already');
    if (kept.steps.at(-1)?.what !== VOID) kept.steps.push({ at: new Date().toISOString(), what: VOID });
    this.state.changed();
    return {};
  }

  moveOn(tracking: string): void {
    const parcel = this.state.world.parcels.find((p) => p.tracking === tracking);
    const next = STEPS[parcel?.steps.length ?? STEPS.length];
    if (parcel && next && parcel.steps.at(-1)?.what !== VOID) parcel.steps.push({ at: new Date().toISOString(), what: next });
    this.state.changed();
  }

  private carrier(code: string): Carrier {
    const carrier = Object.hasOwn(CARRIERS, code) ? CARRIERS[code] : undefined;
    if (!carrier) throw new Refused(404, 'There is no such carrier');
    return carrier;
  }
}

/** A label of 100 by 150 mm. */
async function drawLabel(
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
