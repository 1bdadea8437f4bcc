import { createHmac } from 'node:crypto';
import { XMLParser } from 'fast-xml-parser';
import { Refused } from './http.js';
import { behave, type KeptPurchase, type WorldState } from './state.js';
import { despatchAdvice, orderResponse, type Deviation } from './supplier-papers.js';

const MOST_KEPT = 200;
const parser = new XMLParser({
  ignoreAttributes: true,
  removeNSPrefix: true,
  parseTagValue: false,
  isArray: (name) => name === 'OrderLine',
});

interface OrderXml {
  Order?: {
    ID?: string;
    SellerSupplierParty?: { Party?: { PartyIdentification?: { ID?: string }; PartyName?: { Name?: string } } };
    OrderLine?: {
      LineItem?: { ID?: string; Quantity?: string; Price?: { PriceAmount?: string }; Item?: { Name?: string } };
    }[];
  };
}

/**
 * The suppliers' own systems: they read the orders that come by mail, and their clerks, on the console, confirm, change or
 * refuse them and send the goods. What they say goes to the stores as UBL, signed with the key they were given.
 */
export class Suppliers {
  constructor(
    private readonly state: WorldState,
    private readonly houseUrl: string,
    private readonly key: string,
  ) {}

  /** Files an order that came as the XML beside a mail. A later mail about the same order takes its place. */
  hear(attachment: string): void {
    const order = readOrder(attachment);
    if (!order) return;
    const { purchases } = this.state.world;
    const before = purchases.findIndex((p) => p.order === order.order);
    if (before >= 0) purchases.splice(before, 1, { ...order, papers: purchases[before]?.papers ?? 0 });
    else purchases.push(order);
    purchases.splice(0, purchases.length - MOST_KEPT);
    this.state.changed();
  }

  async answer(code: string, how: Deviation): Promise<KeptPurchase> {
    const purchase = this.known(code);
    return this.send(purchase, orderResponse(purchase, this.next(purchase, 'AB'), how), how === 'accept' ? 'confirmed' : `${how}d`);
  }

  /** All of it leaves, on one pallet for each three lines. */
  async despatch(code: string): Promise<KeptPurchase> {
    const purchase = this.known(code);
    return this.send(purchase, despatchAdvice(purchase, this.next(purchase, 'LS')), 'on its way');
  }

  private known(code: string): KeptPurchase {
    const found = this.state.world.purchases.find((p) => p.order === code);
    if (!found) throw new Refused(404, `No supplier has an order ${code}`);
    return found;
  }

  private next(purchase: KeptPurchase, kind: string): string {
    purchase.papers += 1;
    return `${kind}-${purchase.order}-${purchase.papers}`;
  }

  private async send(purchase: KeptPurchase, xml: string, says: string): Promise<KeptPurchase> {
    const { manners } = this.state.world;
    await behave(manners.suppliers);
    for (let i = 0; i < (manners.suppliers === 'twice' ? 2 : 1); i++) {
      const response = await fetch(`${this.houseUrl}/api/suppliers/${purchase.supplier}/documents`, {
        method: 'POST',
        headers: { 'content-type': 'application/xml', 'x-signature': createHmac('sha256', this.key).update(xml).digest('hex') },
        body: xml,
        signal: AbortSignal.timeout(10_000),
      });
      const answer = (await response.json().catch(() => ({}))) as { detail?: string };
      purchase.said = response.ok ? says : `not taken: ${answer.detail ?? response.status}`;
    }
    this.state.changed();
    return purchase;
  }
}

/** Reads a UBL Order as far as a clerk needs it; null where the text is none. */
export function readOrder(xml: string): KeptPurchase | null {
  let order: OrderXml['Order'];
  try {
    order = (parser.parse(xml) as OrderXml).Order;
  } catch {
    return null;
  }
  const party = order?.SellerSupplierParty?.Party;
  if (!order?.ID || !party?.PartyIdentification?.ID) return null;
  return {
    at: new Date().toISOString(),
    order: order.ID,
    supplier: party.PartyIdentification.ID,
    name: party.PartyName?.Name ?? '',
    said: 'nothing yet',
    papers: 0,
    lines: (order.OrderLine ?? []).map(({ LineItem: l }) => ({
      line: Number(l?.ID ?? 0),
      packs: Number(l?.Quantity ?? 0),
      price: l?.Price?.PriceAmount ?? '0',
      name: l?.Item?.Name ?? '',
    })),
  };
}
