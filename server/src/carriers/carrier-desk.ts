import { Injectable } from '@nestjs/common';
import { rankRates } from '@vectrum/core/rates';
import { DataSource } from 'typeorm';
import type { CarrierRow, Label, LabelWish, Manifest, Shipment } from './carrier-row.js';
import { CarrierClient } from './carrier.client.js';
import { CarriersQueries } from './carriers.queries.js';
import type { RateDto, RatesDto } from './carriers.dto.js';
import type { ownLabelPdf } from './own-label.pdf.js';
import { PAPER, task, Work } from '../platform/index.js';

const OWN_LABEL = task<typeof ownLabelPdf>('carriers/ownLabelPdf', ...PAPER);

/**
 * Prices and labels of a carrier: from its system where it has one, otherwise from the services that were said of it, with a
 * label of our own whose tracking number is the parcel's.
 */
@Injectable()
export class CarrierDesk {
  constructor(
    private readonly source: DataSource,
    private readonly client: CarrierClient,
    private readonly queries: CarriersQueries,
    private readonly work: Work,
  ) {}

  /** What it would take for a parcel. Throws where its system does not answer. */
  async rates(carrier: CarrierRow, shipment: Shipment): Promise<RateDto[]> {
    if (carrier.base_url) return this.client.rates(carrier, shipment);
    const services = await this.queries.services(this.source, carrier.id);
    return services
      .filter((s) => shipment.weightG <= s.mostG)
      .map((s) => ({
        carrier: carrier.code,
        carrierName: carrier.name,
        service: s.code,
        name: s.name,
        price: s.price,
        days: s.days,
        surcharges: [],
      }));
  }

  /** Services and prices of each carrier of a site for a parcel: the cheapest that is fast enough first. */
  async ratesAt(siteId: number, shipment: Shipment, speed: string): Promise<RatesDto> {
    const silent: string[] = [];
    const answers = await Promise.all(
      (await this.queries.atSite(siteId)).map((carrier) =>
        this.rates(carrier, shipment).catch((thrown: unknown) => {
          silent.push(`${carrier.name}: ${thrown instanceof Error ? thrown.message : 'no answer'}`);
          return [];
        }),
      ),
    );
    return { rates: rankRates(answers.flat(), speed), silent };
  }

  /** A label for a parcel; asking twice gives one. Throws where the carrier's system does not answer or refuses. */
  async label(carrier: CarrierRow, shipment: LabelWish): Promise<Label> {
    if (carrier.base_url) return this.client.label(carrier, shipment);
    const service = (await this.queries.services(this.source, carrier.id)).find((s) => s.code === shipment.service);
    if (!service) throw new Error(`${carrier.name} has no service ${shipment.service} any more. Add it, or choose another`);
    const pdf = await this.work.run(OWN_LABEL, carrier.name, service.name, shipment);
    return { tracking: shipment.parcel, price: service.price, pdf, booking: null };
  }

  /** What it says of its parcels since what was seen last; null for one that says nothing. Throws where its system does not answer. */
  async events(carrier: CarrierRow, seen: string): Promise<{ message: unknown; seen: string } | null> {
    return carrier.base_url ? this.client.events(carrier, seen) : null;
  }

  /** Tells a carrier what its driver has taken. One without a system has the list that was signed. */
  async manifest(carrier: CarrierRow, manifest: Manifest): Promise<void> {
    if (carrier.base_url) await this.client.manifest(carrier, manifest);
  }

  /** Tells a carrier that a label it sold will not be used. One without a system of its own has nothing to be told. */
  async voidLabel(carrier: CarrierRow, label: { reference: string; tracking: string | null }): Promise<void> {
    if (carrier.base_url) await this.client.voidLabel(carrier, label);
  }

  /** Asks a carrier for its prices of an imagined parcel, so that its address, key and services can be tried. */
  async attempt(code: string, parcel: { weightG: number; postcode: string; country: string }): Promise<RateDto[]> {
    const row = await this.queries.spokenTo(code);
    const to = { name: 'Somebody', line: '1 High Street', city: 'Anytown', postcode: parcel.postcode, country: parcel.country };
    return this.rates(row, { parcel: 'TRY', weightG: parcel.weightG, sizeMm: null, to });
  }
}
