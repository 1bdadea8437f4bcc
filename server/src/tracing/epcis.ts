import type { LotFacts, LotMovement } from './trace.queries.js';

const STEP: Readonly<Record<string, string>> = {
  receive: 'receiving',
  store: 'storing',
  move: 'storing',
  pick: 'picking',
  sort: 'picking',
  pack: 'packing',
  ship: 'shipping',
  count: 'cycle_counting',
  'come-back': 'receiving',
  transfer: 'transporting',
  build: 'assembling',
};

const isoOf = (at: Date) => new Date(at).toISOString();

/**
 * The events of a lot as an EPCIS 2.0 document (GS1, JSON-LD binding): each movement is an ObjectEvent with its business step, what
 * comes into the house or leaves it with action ADD or DELETE. Classes and places are named by URNs of the house's own.
 */
export function epcisOf(lot: LotFacts, movements: readonly LotMovement[], createdAt: Date): object {
  return {
    '@context': ['https://ref.gs1.org/standards/epcis/2.0.0/epcis-context.jsonld'],
    type: 'EPCISDocument',
    schemaVersion: '2.0',
    creationDate: createdAt.toISOString(),
    epcisBody: {
      eventList: movements.map((m) => ({
        type: 'ObjectEvent',
        eventID: `urn:vectrum:movement:${m.id}`,
        eventTime: isoOf(m.at),
        eventTimeZoneOffset: '+00:00',
        action: m.fromSite === null ? 'ADD' : m.toSite === null ? 'DELETE' : 'OBSERVE',
        bizStep: STEP[m.task] ?? 'other',
        quantityList: [
          { epcClass: `urn:vectrum:item:${encodeURIComponent(lot.sku)}:lot:${encodeURIComponent(lot.lot)}`, quantity: m.units },
        ],
        readPoint: { id: `urn:vectrum:place:${encodeURIComponent(m.fromPlace)}` },
        bizLocation: { id: `urn:vectrum:place:${encodeURIComponent(m.toPlace)}` },
        ...(m.document ? { bizTransactionList: [{ bizTransaction: `urn:vectrum:document:${encodeURIComponent(m.document)}` }] } : {}),
        ...(m.reversesId
          ? { errorDeclaration: { declarationTime: isoOf(m.at), correctiveEventIDs: [`urn:vectrum:movement:${m.reversesId}`] } }
          : {}),
      })),
    },
  };
}
