import { isReturnReason } from '@vectrum/core/customer-returns';
import { Injectable } from '@nestjs/common';
import type { ChannelAccess, ChannelMessage, Connector, Offer, SettledReturn, Shipment } from '../connector.js';
import { jsonObject, readForm } from '../read-form.js';
import { speak } from '../speak.js';
import { ShopCancelDto, ShopOrderDto, ShopReturnDto } from './shop-order.dto.js';

/** A web shop: it sends signed messages, answers what it is asked since a cursor, and is told stock and parcels. */
@Injectable()
export class WebShop implements Connector {
  async read(raw: string): Promise<ChannelMessage> {
    const message = jsonObject(raw);
    if (message['state'] === 'cancelled') {
      const { ref, why } = await readForm(ShopCancelDto, message);
      return { kind: 'cancel', ref, why: why ?? 'cancelled in the shop' };
    }
    if (message['state'] === 'returned') {
      const { lines, note, wish, ...of } = await readForm(ShopReturnDto, message);
      const said = lines.map(({ sku, quantity, reason = '' }) => ({
        sku,
        units: quantity,
        reason: isReturnReason(reason) ? reason : ('unsaid' as const),
      }));
      return { kind: 'return', said: { ...of, wish: wish ?? null, note: note ?? '', lines: said } };
    }
    const { revision, ...order } = await readForm(ShopOrderDto, message);
    return { kind: 'order', order, revision: revision ?? null };
  }

  async fetch(channel: ChannelAccess): Promise<{ messages: string[]; cursor: string }> {
    const response = await speak(channel, {
      method: 'GET',
      path: `/orders?since=${encodeURIComponent(channel.poll_cursor)}`,
      by: 'signature',
    });
    const body = (await response.json()) as { orders?: unknown; cursor?: unknown };
    return {
      messages: (Array.isArray(body.orders) ? body.orders : []).map((order) => JSON.stringify(order) ?? ''),
      cursor: typeof body.cursor === 'string' ? body.cursor : channel.poll_cursor,
    };
  }

  async pushStock(channel: ChannelAccess, { sku, units, sequence }: { sku: string; units: number; sequence: number }): Promise<void> {
    await this.put(channel, `/stock/${encodeURIComponent(sku)}`, { sku, units, sequence });
  }

  async pushShipment(channel: ChannelAccess, shipment: Shipment): Promise<void> {
    await this.put(channel, `/orders/${encodeURIComponent(shipment.ref)}/shipments/${encodeURIComponent(shipment.parcel)}`, shipment);
  }

  async pushReturn(channel: ChannelAccess, settled: SettledReturn): Promise<void> {
    await this.put(channel, `/orders/${encodeURIComponent(settled.ref)}/returns/${encodeURIComponent(settled.code)}`, settled);
  }

  async cancel(channel: ChannelAccess, { ref, why }: { ref: string; why: string }): Promise<void> {
    await this.put(channel, `/orders/${encodeURIComponent(ref)}/cancellation`, { ref, why });
  }

  async beliefs(channel: ChannelAccess): Promise<{ sku: string; units: number }[]> {
    const body = (await (await speak(channel, { method: 'GET', path: '/stock', by: 'signature' })).json()) as { stock?: unknown };
    return (Array.isArray(body.stock) ? (body.stock as { sku?: unknown; units?: unknown }[]) : []).flatMap(({ sku, units }) =>
      typeof sku === 'string' && Number.isInteger(units) ? [{ sku, units: Number(units) }] : [],
    );
  }

  async catalogue(channel: ChannelAccess): Promise<Offer[]> {
    const body = (await (await speak(channel, { method: 'GET', path: '/goods', by: 'signature' })).json()) as { goods?: unknown };
    return (Array.isArray(body.goods) ? (body.goods as Record<string, unknown>[]) : []).flatMap(offerOf);
  }

  private async put(channel: ChannelAccess, path: string, body: object): Promise<void> {
    await speak(channel, { method: 'PUT', path, body: JSON.stringify(body), by: 'signature' });
  }
}

const words = (value: unknown) => (typeof value === 'string' && value !== '' ? value : null);
/** One of a channel's goods; nothing of what has no code or name. */
export function offerOf(goods: Record<string, unknown>): Offer[] {
  const [sku, title] = [words(goods['sku']), words(goods['title'])];
  if (!sku || !title) return [];
  const price = words(goods['price']);
  return [
    {
      sku: sku.slice(0, 60),
      title: title.slice(0, 120),
      price: price && /^\d{1,10}(\.\d{1,6})?$/.test(price) ? price : '0',
      barcode: words(goods['barcode']),
      picture: words(goods['picture']),
    },
  ];
}
