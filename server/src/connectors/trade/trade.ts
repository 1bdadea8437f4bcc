import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { badForm, one, rows } from '../../platform/index.js';
import { InvoicePapers } from '../../invoicing/index.js';
import { SettingsService } from '../../settings/index.js';
import {
  readXml,
  structureFaults,
  textAt,
  type UblOrderResponse,
  writeDespatchAdvice,
  writeOrderResponse,
  XmlFault,
} from '../../ubl/index.js';
import type { ChannelAccess, ChannelMessage, Connector, Shipment } from '../connector.js';
import { speak } from '../speak.js';
import { adviceOf } from './trade-advice.js';
import { readTradeOrder } from './read-trade-order.js';

/** Trade customers: orders as UBL 2.1, signed or by file; what becomes of them is answered as an OrderResponse. */
@Injectable()
export class Trade implements Connector {
  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
    private readonly papers: InvoicePapers,
  ) {}

  // eslint-disable-next-line @typescript-eslint/require-await -- one interface for those who read at once and those who do not
  async read(raw: string): Promise<ChannelMessage> {
    try {
      const root = readXml(Buffer.from(raw));
      if (root.name === 'OrderCancellation') {
        const ref = textAt(root, 'cac:OrderReference/cbc:ID');
        if (!ref) throw new XmlFault('It names no order that it cancels');
        return { kind: 'cancel', ref: ref.slice(0, 60), why: textAt(root, 'cbc:CancellationNote') ?? 'cancelled by the customer' };
      }
      if (root.name !== 'Order') throw new XmlFault(`A ${root.name} is not taken in here. An Order is`);
      const faults = structureFaults(root);
      if (faults.length > 0) throw new XmlFault(`This is not UBL 2.1: ${faults.slice(0, 3).join('; ')}`);
      return { kind: 'order', order: readTradeOrder(root), revision: null };
    } catch (thrown) {
      if (thrown instanceof XmlFault) throw badForm({ document: thrown.message });
      throw thrown;
    }
  }

  /** Answers the order as it stands by now: taken as asked, taken in part with the day for the rest, or looked into. */
  async acknowledge(channel: ChannelAccess, { ref, code }: { ref: string; code: string }): Promise<void> {
    await this.answer(channel, { ref, code, refused: null });
  }

  /** A parcel that has gone, as a DespatchAdvice. */
  async pushShipment(channel: ChannelAccess, { ref, parcel, tracking }: Shipment): Promise<void> {
    const us = (await this.settings.letterhead()).name || 'The seller';
    const order = await one<{ customer: string }>(
      this.source,
      'SELECT customer FROM sales_order WHERE channel_id = ? AND channel_ref = ?',
      [channel.id, ref],
    );
    const advice = await adviceOf(this.source, { code: parcel, ref, seller: us, tracking });
    if (advice.lines.length === 0) return;
    await this.post(channel, '/despatch-advices', writeDespatchAdvice(advice, partyOf(us), partyOf(order?.customer ?? '')));
  }

  /** An invoice or credit note, as such a document. */
  async pushInvoice(channel: ChannelAccess, { code }: { code: string }): Promise<void> {
    await this.post(channel, '/invoices', await this.papers.document(code));
  }

  async cancel(channel: ChannelAccess, { ref, why }: { ref: string; why: string }): Promise<void> {
    await this.answer(channel, { ref, code: ref, refused: why });
  }

  private async answer(
    channel: ChannelAccess,
    { ref, code, refused }: { ref: string; code: string; refused: string | null },
  ): Promise<void> {
    const order = await one<{ id: number; code: string; customer: string; promisedOn: string; held: string | null }>(
      this.source,
      'SELECT id, code, customer, DATE(promised_at) AS promisedOn, hold_reason AS held FROM sales_order WHERE channel_id = ? AND channel_ref = ?',
      [channel.id, ref],
    );
    if (!order) return;
    const lines = await rows<{ line: number; quantity: number; price: string; itemId: number | null }>(
      this.source,
      'SELECT line, quantity, price, item_id AS itemId FROM sales_order_line WHERE order_id = ? AND quantity > 0 AND kit_line IS NULL AND along = 0 ORDER BY line',
      [order.id],
    );
    const us = (await this.settings.letterhead()).name || 'The seller';
    const response: UblOrderResponse = {
      id: `${order.code}-${Date.now()}`,
      issuedOn: new Date().toISOString().slice(0, 10),
      says: refused !== null ? 'refused' : order.held ? 'acknowledged' : 'accepted',
      order: ref,
      note: refused ?? order.held ?? `Our number is ${code}`,
      seller: us,
      promisedOn: refused === null ? order.promisedOn : null,
      lines: lines.map((l) => ({
        line: l.line,
        says: refused !== null ? 'refused' : 'accepted',
        packs: l.quantity,
        price: l.price,
        promisedOn: null,
        note: l.itemId === null ? 'We do not know this code yet' : '',
      })),
    };
    const currency = await this.settings.get(this.source, 'homeCurrency');
    await this.post(channel, '/order-responses', writeOrderResponse(response, partyOf(us), partyOf(order.customer), currency));
  }

  private async post(channel: ChannelAccess, path: string, body: string): Promise<void> {
    await speak(channel, { method: 'POST', path, body, type: 'application/xml', by: 'signature' });
  }
}

const partyOf = (name: string) => ({ code: '', name, addressLines: [], email: '', phone: '' });
