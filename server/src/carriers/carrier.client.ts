import { Injectable } from '@nestjs/common';
import type { CarrierRow, Label, LabelWish, Manifest, Shipment } from './carrier-row.js';
import type { RateDto } from './carriers.dto.js';

const TIMEOUT_MS = 6_000;

/** The carrier does not know what it was asked about. */
class NotKnown extends Error {}

/** Speaks to the systems of carriers over HTTP and JSON. Throws where one does not answer in time or refuses. */
@Injectable()
export class CarrierClient {
  async rates(carrier: CarrierRow, shipment: Shipment): Promise<RateDto[]> {
    const body = (await this.post(carrier, '/rates', shipment)) as {
      rates: { service: string; name: string; price: string; days: number; surcharges?: { name: string; price: string }[] }[];
    };
    return body.rates.map((r) => ({ ...r, surcharges: r.surcharges ?? [], carrier: carrier.code, carrierName: carrier.name }));
  }

  /** Buys a label. Its reference is the key: asking twice buys once. */
  async label(carrier: CarrierRow, wish: LabelWish): Promise<Label> {
    const body = (await this.post(carrier, '/labels', wish, wish.reference)) as {
      tracking: string;
      price: string;
      pdf: string;
      booking?: string;
    };
    return {
      tracking: body.tracking,
      price: body.price,
      pdf: Buffer.from(body.pdf, 'base64'),
      booking: body.booking?.slice(0, 60) ?? null,
    };
  }

  /** Gives a label back, named by its reference; one that was never made is as good as given back. Asking twice gives it back once. */
  async voidLabel(carrier: CarrierRow, label: { reference: string; tracking: string | null }): Promise<void> {
    await this.post(carrier, '/voids', label, label.reference).catch((thrown: unknown) => {
      if (!(thrown instanceof NotKnown) || label.tracking !== null) throw thrown;
    });
  }

  /** What it says of its parcels since what was seen last, and what to ask from next; null where it says nothing of the kind. */
  async events(carrier: CarrierRow, seen: string): Promise<{ message: unknown; seen: string } | null> {
    const response = await fetch(`${carrier.base_url ?? ''}/events?since=${encodeURIComponent(seen)}`, {
      headers: { authorization: `Bearer ${carrier.api_key ?? ''}` },
      signal: AbortSignal.timeout(TIMEOUT_MS),
    });
    if (response.status === 404) return null;
    if (!response.ok) throw new Error(`${carrier.name} answered ${response.status}`);
    const message = (await response.json()) as { seen?: unknown };
    return { message, seen: typeof message.seen === 'string' ? message.seen.slice(0, 100) : seen };
  }

  /** Tells what a driver has taken. Told twice, it is known once; a carrier that wants no such list is told nothing. */
  async manifest(carrier: CarrierRow, manifest: Manifest): Promise<void> {
    await this.post(carrier, '/manifests', manifest, manifest.reference).catch((thrown: unknown) => {
      if (!(thrown instanceof NotKnown)) throw thrown;
    });
  }

  private async post(carrier: CarrierRow, path: string, body: object, key?: string): Promise<unknown> {
    const response = await fetch(`${carrier.base_url ?? ''}${path}`, {
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        authorization: `Bearer ${carrier.api_key ?? ''}`,
        ...(key ? { 'idempotency-key': key } : {}),
      },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(TIMEOUT_MS),
    });
    if (!response.ok) {
      const said = (await response.json().catch(() => ({}))) as { message?: string };
      const why = said.message ?? `${carrier.name} answered ${response.status}`;
      throw response.status === 404 ? new NotKnown(why) : new Error(why);
    }
    return response.json();
  }
}
