import { Injectable } from '@nestjs/common';
import type { ChannelAccess, ChannelMessage, Connector, Offer, Shipment } from '../connector.js';
import { jsonObject, readForm } from '../read-form.js';
import { speak } from '../speak.js';
import { offerOf } from '../web-shop/web-shop.js';
import { LindenOrderDto } from './linden-order.dto.js';

/** The marketplace: it is asked for orders, has offers under its own codes, a time by which each order must leave, and a limit of calls. */
@Injectable()
export class Lindenmart implements Connector {
  async read(raw: string): Promise<ChannelMessage> {
    const order = await readForm(LindenOrderDto, jsonObject(raw));
    if (order.status === 'cancelled') return { kind: 'cancel', ref: order.number, why: 'cancelled by the buyer' };
    const { recipient } = order;
    return {
      kind: 'order',
      revision: order.edition,
      order: {
        ref: order.number,
        placedAt: order.bought,
        promisedAt: order.dispatchBy,
        customer: recipient.name,
        address: { line: recipient.street, city: recipient.town, postcode: recipient.postcode, country: recipient.country },
        note: order.message ?? null,
        lines: order.goods.map((g) => ({ sku: g.offer, quantity: g.count, price: g.unitPrice })),
      },
    };
  }

  async fetch(channel: ChannelAccess): Promise<{ messages: string[]; cursor: string }> {
    const path = `/orders?after=${encodeURIComponent(channel.poll_cursor || '0')}`;
    const body = (await (await speak(channel, { method: 'GET', path, by: 'key' })).json()) as { orders?: unknown; after?: unknown };
    return {
      messages: (Array.isArray(body.orders) ? body.orders : []).map((order) => JSON.stringify(order) ?? ''),
      cursor: typeof body.after === 'string' ? body.after : channel.poll_cursor,
    };
  }

  async acknowledge(channel: ChannelAccess, { ref, code }: { ref: string; code: string }): Promise<void> {
    await this.post(channel, `/orders/${encodeURIComponent(ref)}/taken`, { sellersNumber: code });
  }

  async pushStock(channel: ChannelAccess, { sku, units, sequence }: { sku: string; units: number; sequence: number }): Promise<void> {
    await this.post(channel, `/offers/${encodeURIComponent(sku)}/count`, { count: units, version: sequence });
  }

  async pushShipment(channel: ChannelAccess, { ref, ...parcel }: Shipment): Promise<void> {
    await this.post(channel, `/orders/${encodeURIComponent(ref)}/parcels`, parcel);
  }

  async cancel(channel: ChannelAccess, { ref, why }: { ref: string; why: string }): Promise<void> {
    await this.post(channel, `/orders/${encodeURIComponent(ref)}/refused`, { why });
  }

  async beliefs(channel: ChannelAccess): Promise<{ sku: string; units: number }[]> {
    const offers = await this.offers(channel);
    return offers.flatMap((o) =>
      typeof o['sku'] === 'string' && Number.isInteger(o['count']) ? [{ sku: o['sku'], units: Number(o['count']) }] : [],
    );
  }

  async catalogue(channel: ChannelAccess): Promise<Offer[]> {
    return (await this.offers(channel)).flatMap(offerOf);
  }

  private async offers(channel: ChannelAccess): Promise<Record<string, unknown>[]> {
    const body = (await (await speak(channel, { method: 'GET', path: '/offers', by: 'key' })).json()) as { offers?: unknown };
    return Array.isArray(body.offers) ? (body.offers as Record<string, unknown>[]) : [];
  }

  private async post(channel: ChannelAccess, path: string, body: object): Promise<void> {
    await speak(channel, { method: 'POST', path, body: JSON.stringify(body), by: 'key' });
  }
}
