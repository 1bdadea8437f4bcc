import { Refused } from './http.js';

export interface Service {
  service: string;
  name: string;
  days: number;
  /** Highest weight in grams and price, lightest first. */
  bands: readonly (readonly [number, string])[];
  /** What it costs on top, whatever the weight. */
  adds?: { name: string; price: string };
}
export interface Carrier {
  name: string;
  prefix: string;
  /** The longest side that it takes. */
  longestMm: number;
  /** Cubic millimetres that cost as much as a gram; none where only weight counts. */
  mm3PerG?: number;
  /** Where it is far to go, and what that adds. */
  remote?: { where: RegExp; price: string };
  /** Where it goes at all; everywhere where it says nothing. */
  serves?: RegExp;
  /** Its driver comes for a booked collection. */
  books?: boolean;
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
    books: true,
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
      {
        service: 'pallet-day-lift',
        name: 'Pallet, next working day, tail lift',
        days: 1,
        bands: [
          [250000, '42.00'],
          [1000000, '68.00'],
        ],
        adds: { name: 'tail lift', price: '14.00' },
      },
    ],
  },
  pedal: {
    name: 'Pedal & Pannier',
    prefix: 'PP',
    longestMm: 1_200,
    serves: /^(QY|AM|SK)/i,
    services: [
      { service: 'today', name: 'In town today', days: 0, bands: [[12000, '4.80']] },
      { service: 'cart', name: 'Cargo bike in town', days: 1, bands: [[60000, '9.50']] },
    ],
  },
};

export function carrierOf(code: string): Carrier {
  const carrier = Object.hasOwn(CARRIERS, code) ? CARRIERS[code] : undefined;
  if (!carrier) throw new Refused(404, 'There is no such carrier');
  return carrier;
}

/** The code under which a carrier is known by its name. */
export const codeOf = (name: string): string => Object.keys(CARRIERS).find((code) => CARRIERS[code]?.name === name) ?? '';

/** What a carrier asks for a parcel, with what it adds; null where it does not take it. */
export function costOf(carrier: Carrier, service: Service, asked: Record<string, unknown>) {
  const weight = Number(asked['weightG']);
  if (!Number.isFinite(weight) || weight <= 0) return null;
  const size = Array.isArray(asked['sizeMm']) ? asked['sizeMm'].map(Number) : [0, 0, 0];
  if (Math.max(...size) > carrier.longestMm) return null;
  // Large and light costs as much as its room would weigh.
  const room = carrier.mm3PerG ? size.reduce((a, b) => a * b, 1) / carrier.mm3PerG : 0;
  const band = service.bands.find(([most]) => Math.max(weight, room) <= most)?.[1];
  if (!band) return null;
  const { postcode = '' } = (asked['to'] ?? {}) as { postcode?: string };
  if (carrier.serves && !carrier.serves.test(postcode)) return null;
  const surcharges = [
    ...(carrier.remote?.where.test(postcode) ? [{ name: 'remote area', price: carrier.remote.price }] : []),
    ...(service.adds ? [service.adds] : []),
  ];
  const pence = [band, ...surcharges.map((x) => x.price)].reduce((sum, p) => sum + Math.round(Number(p) * 100), 0);
  return { price: (pence / 100).toFixed(2), surcharges };
}
