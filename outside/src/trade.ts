import { createHmac, randomInt } from 'node:crypto';
import { XMLParser } from 'fast-xml-parser';
import { Refused } from './http.js';
import { behave, type KeptTradeOrder, type WorldState } from './state.js';

const parser = new XMLParser({ ignoreAttributes: true, removeNSPrefix: true, parseTagValue: false });
const MOST_KEPT = 200;
const NAMESPACES = (root: string) =>
  `xmlns="urn:oasis:names:specification:ubl:schema:xsd:${root}-2" xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2" xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2"`;
const text = (value: string) => value.replace(/[&<>]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;' })[c] ?? c);

/** A trade customer's system: it orders by UBL, signed, and hears what the stores answer. */
export class Trade {
  constructor(
    private readonly state: WorldState,
    private readonly houseUrl: string,
    private readonly secret: string,
  ) {}

  private sign(body: string): string {
    return createHmac('sha256', this.secret).update(body).digest('hex');
  }

  mustBeSigned(body: string, given: string | undefined): void {
    if (given !== this.sign(body)) throw new Refused(401, 'The signature does not match');
  }

  /** Orders, or says an order anew under the same number. `odd` sends what breaks the standard. */
  async order(
    customer: string,
    lines: KeptTradeOrder['lines'],
    odd = false,
    number = `PO-${randomInt(10_000, 99_999)}`,
  ): Promise<KeptTradeOrder> {
    const { trade } = this.state.world;
    const known = trade.find((o) => o.number === number);
    const kept = known ?? { number, customer, told: 'not yet', answers: [], lines };
    kept.lines = lines;
    if (!known) trade.push(kept);
    if (trade.length > MOST_KEPT) trade.shift();
    await this.send(kept, odd ? '<Order><ID>half' : orderXml(kept));
    return kept;
  }

  async cancel(number: string): Promise<KeptTradeOrder> {
    const kept = this.state.world.trade.find((o) => o.number === number);
    if (!kept) throw new Refused(404, 'There is no such order');
    await this.send(
      kept,
      `<?xml version="1.0" encoding="UTF-8"?><OrderCancellation ${NAMESPACES('OrderCancellation')}><cbc:ID>C-${text(number)}</cbc:ID><cbc:IssueDate>${new Date().toISOString().slice(0, 10)}</cbc:IssueDate><cbc:CancellationNote>bought elsewhere</cbc:CancellationNote><cac:OrderReference><cbc:ID>${text(number)}</cbc:ID></cac:OrderReference></OrderCancellation>`,
    );
    return kept;
  }

  private async send(kept: KeptTradeOrder, body: string): Promise<void> {
    await behave(this.state.world.manners.trade);
    const times = this.state.world.manners.trade === 'twice' ? 2 : 1;
    for (let i = 0; i < times; i++) {
      const response = await fetch(`${this.houseUrl}/api/channels/TRADE/documents`, {
        method: 'POST',
        headers: { 'content-type': 'application/xml', 'x-signature': this.sign(body) },
        body,
        signal: AbortSignal.timeout(5_000),
      });
      kept.told = response.ok ? 'told' : `refused: ${response.status}`;
    }
    this.state.changed();
  }

  /** A parcel is on its way. Said twice, it is the same. */
  async hearParcel(body: string): Promise<void> {
    await behave(this.state.world.manners.trade);
    const advice = (parser.parse(body) as { DespatchAdvice?: Advice }).DespatchAdvice;
    const lines = [advice?.DespatchLine ?? []].flat();
    const kept = this.orderOf(lines[0]?.OrderLineReference?.OrderReference?.ID);
    const parcel = advice?.ID ?? '';
    const units = lines.reduce((sum, l) => sum + Number(l.DeliveredQuantity), 0);
    if (parcel === '' || !Number.isFinite(units)) throw new Refused(422, 'This advice says nothing that was sent');
    const parcels = (kept.parcels ??= []);
    if (!parcels.some((p) => p.parcel === parcel)) parcels.push({ parcel, tracking: advice?.Shipment?.Delivery?.TrackingID ?? '', units });
    this.state.changed();
  }

  /** An invoice or a credit note. One whose lines do not come to its sum is refused. */
  async hearBill(body: string): Promise<void> {
    await behave(this.state.world.manners.trade);
    const { Invoice: invoice, CreditNote: credit } = parser.parse(body) as { Invoice?: Bill; CreditNote?: Bill };
    const bill = invoice ?? credit;
    const lines = [bill?.InvoiceLine ?? bill?.CreditNoteLine ?? []].flat();
    const pence = (amount: string | undefined) => Math.round(Number(amount) * 100);
    const net = lines.reduce((sum, l) => sum + pence(l.LineExtensionAmount), 0);
    if (!bill?.ID || net !== pence(bill.LegalMonetaryTotal?.LineExtensionAmount))
      throw new Refused(422, 'Its lines do not come to its sum');
    const code = bill.ID;
    // Orders go by the stores' own numbers on a bill: whoever is named on the answer has it.
    const ours = lines.map((l) => l.OrderLineReference?.OrderReference?.ID ?? '');
    const kept = this.state.world.trade.find((o) => o.answers.some((a) => ours.some((id) => id !== '' && a.note.includes(id))));
    const bills = kept ? (kept.bills ??= []) : [];
    const payable = bill.LegalMonetaryTotal?.PayableAmount ?? '';
    if (!bills.some((b) => b.code === code)) bills.push({ code, kind: invoice ? 'invoice' : 'credit', payable });
    this.state.changed();
  }

  private orderOf(number: string | undefined): KeptTradeOrder {
    const kept = this.state.world.trade.find((o) => o.number.toUpperCase() === number?.toUpperCase());
    if (!kept) throw new Refused(404, 'There is no such order');
    return kept;
  }

  /** What the stores answer to an order. */
  async hear(body: string): Promise<void> {
    await behave(this.state.world.manners.trade);
    const response = (
      parser.parse(body) as { OrderResponse?: { OrderResponseCode?: string; Note?: string; OrderReference?: { ID?: string } } }
    ).OrderResponse;
    const kept = this.state.world.trade.find((o) => o.number === response?.OrderReference?.ID);
    kept?.answers.push({ code: response?.OrderResponseCode ?? '', note: response?.Note ?? '' });
    this.state.changed();
  }
}

interface OrderLineRef {
  OrderLineReference?: { OrderReference?: { ID?: string } };
}
interface Advice {
  ID?: string;
  Shipment?: { Delivery?: { TrackingID?: string } };
  DespatchLine?: (OrderLineRef & { DeliveredQuantity?: string }) | (OrderLineRef & { DeliveredQuantity?: string })[];
}
type BillLine = OrderLineRef & { LineExtensionAmount?: string };
interface Bill {
  ID?: string;
  LegalMonetaryTotal?: { LineExtensionAmount?: string; PayableAmount?: string };
  InvoiceLine?: BillLine | BillLine[];
  CreditNoteLine?: BillLine | BillLine[];
}

function orderXml(o: KeptTradeOrder): string {
  const lines = o.lines
    .map(
      (l, i) =>
        `<cac:OrderLine><cac:LineItem><cbc:ID>${i + 1}</cbc:ID><cbc:Quantity unitCode="C62">${l.quantity}</cbc:Quantity><cac:Price><cbc:PriceAmount currencyID="GBP">1.00</cbc:PriceAmount></cac:Price><cac:Item><cac:SellersItemIdentification><cbc:ID>${text(l.sku)}</cbc:ID></cac:SellersItemIdentification></cac:Item></cac:LineItem></cac:OrderLine>`,
    )
    .join('');
  return `<?xml version="1.0" encoding="UTF-8"?><Order ${NAMESPACES('Order')}><cbc:UBLVersionID>2.1</cbc:UBLVersionID><cbc:ID>${text(o.number)}</cbc:ID><cbc:IssueDate>${new Date().toISOString().slice(0, 10)}</cbc:IssueDate><cac:BuyerCustomerParty><cac:Party><cac:PartyName><cbc:Name>${text(o.customer)}</cbc:Name></cac:PartyName><cac:PostalAddress><cbc:StreetName>Station Approach</cbc:StreetName><cbc:CityName>Thornlea</cbc:CityName><cbc:PostalZone>TL1 3BQ</cbc:PostalZone><cac:Country><cbc:IdentificationCode>GB</cbc:IdentificationCode></cac:Country></cac:PostalAddress></cac:Party></cac:BuyerCustomerParty><cac:SellerSupplierParty><cac:Party><cac:PartyName><cbc:Name>Tarn and Thistle</cbc:Name></cac:PartyName></cac:Party></cac:SellerSupplierParty>${lines}</Order>`;
}
