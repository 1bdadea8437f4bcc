import { Injectable } from '@nestjs/common';
import type { CarrierRow, Label, LabelWish, Shipment } from './carrier-row.js';
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
    const body = (await this.post(carrier, '/labels', wish, wish.reference)) as { tracking: string; price: string; pdf: string };
    return { tracking: body.tracking, price: body.price, pdf: Buffer.from(body.pdf, 'base64') };
  }

  /** Gives a label back, named by its reference; one that was never made is as good as given back. Asking twice gives it back once. */
  async voidLabel(carrier: CarrierRow, label: { reference: string; tracking: string | null }): Promise<void> {
    await this.post(carrier, '/voids', label, label.reference).catch((thrown: unknown) => {
      if (!(thrown instanceof NotKnown) || label.tracking !== null) throw thrown;
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
