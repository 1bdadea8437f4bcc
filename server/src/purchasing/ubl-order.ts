import { decimalText, micro } from '@vectrum/core/money';
import { dayIn } from '../platform/index.js';
import type { UblOrder } from '../ubl/index.js';
import type { PurchaseOrderDto } from './purchasing.dto.js';

/** What the document needs beyond the order's sheet. */
export interface OrderParties {
  house: { name: string; address: string; timeZone?: string };
  /** By SKU and pack: the supplier's own code, and the barcode of the pack where it is a GTIN. */
  codes: ReadonlyMap<string, { supplierSku: string; gtin: string | null }>;
}

const lines = (address: string) =>
  address
    .split(/[\n,]/)
    .map((l) => l.trim())
    .filter(Boolean);
/** "20.160000" as "20.16". */
const amount = (text: string) => {
  const [whole = '0', part = ''] = decimalText(micro(text)).split('.');
  return `${whole}.${part.replace(/0+$/, '').padEnd(2, '0')}`;
};

/** A purchase order as a supplier's system reads it. Wants an order with its prices. */
export function ublOrderOf(order: PurchaseOrderDto, { house, codes }: OrderParties): UblOrder {
  const charges = order.charges ?? [];
  const total = charges.reduce((sum, c) => sum + micro(c.amount), micro(order.goods ?? '0'));
  return {
    code: order.code,
    issuedOn: dayIn(house.timeZone ?? 'UTC', new Date(order.placedAt ?? order.createdAt)),
    currency: order.currency,
    note: order.note,
    buyer: { code: '', name: house.name || 'Buyer', addressLines: lines(house.address), email: '', phone: '' },
    seller: { code: order.supplierCode, name: order.supplier, addressLines: [], email: order.supplierEmail, phone: order.supplierPhone },
    deliverTo: { code: order.site, name: order.site, addressLines: [], email: '', phone: '' },
    expectedOn: order.expectedOn,
    charges: charges.map((c) => ({ says: c.says, amount: amount(c.amount) })),
    goods: amount(order.goods ?? '0'),
    total: amount(decimalText(total)),
    lines: order.lines.map((l) => ({
      line: l.line,
      packs: l.packs,
      factor: l.factor,
      packName: l.pack,
      price: amount(l.price ?? '0'),
      total: amount(l.goods ?? '0'),
      sku: l.sku,
      supplierSku: codes.get(`${l.sku}/${l.factor}`)?.supplierSku ?? '',
      gtin: codes.get(`${l.sku}/${l.factor}`)?.gtin ?? null,
      name: l.name,
      expectedOn: l.expectedOn,
    })),
  };
}
