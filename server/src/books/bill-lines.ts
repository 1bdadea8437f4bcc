import { matchLine, within, type BillFinding, type Tolerance } from '@vectrum/core/costing';
import { decimalText, micro } from '@vectrum/core/money';
import { num, one, rows, type Tx } from '../platform/index.js';

/** A line of a bill with all that it is held against. */
export interface BillLineRow {
  id: number;
  line: number;
  orderId: number;
  order: string;
  orderLineId: number | null;
  orderLine: number | null;
  itemId: number | null;
  name: string;
  says: string;
  units: number | null;
  amount: string;
  sharedBy: 'value' | 'units' | 'weight' | 'volume' | null;
  price: string | null;
  factor: number | null;
  received: number | null;
  /** Units of the line on other bills that are posted. */
  billedBefore: string | null;
  /** Of a charge: what the order said, less what other bills have brought; null where it said nothing. */
  promised: string | null;
  /** Of a charge: what other posted bills have brought of it, and whether goods of the order are still to come. */
  broughtBefore: string | null;
  openUnits: string;
}

export type Finding = Omit<BillFinding, 'says'> & { says: BillFinding['says'] | 'late' };

export function billLines(tx: Pick<Tx, 'query'>, billId: number): Promise<BillLineRow[]> {
  return rows<BillLineRow>(
    tx,
    `SELECT b.id, b.line, COALESCE(l.order_id, b.order_id) AS orderId, o.code AS \`order\`, b.order_line_id AS orderLineId, l.line AS orderLine, l.item_id AS itemId, COALESCE(i.name, b.says) AS name, b.says,
       b.units, b.amount, b.shared_by AS sharedBy, l.price, l.factor, l.received_units AS received,
       (SELECT SUM(x.units) FROM bill_line x JOIN bill y ON y.id = x.bill_id WHERE x.order_line_id = b.order_line_id AND y.state = 'posted' AND y.id <> b.bill_id) AS billedBefore,
       (SELECT SUM(c.amount) FROM purchase_order_charge c WHERE c.order_id = b.order_id AND c.says = b.says)
         - (SELECT COALESCE(SUM(x.amount), 0) FROM bill_line x JOIN bill y ON y.id = x.bill_id WHERE x.order_id = b.order_id AND x.says = b.says AND y.state = 'posted' AND y.id <> b.bill_id) AS promised,
       (SELECT COALESCE(SUM(x.amount), 0) FROM bill_line x JOIN bill y ON y.id = x.bill_id WHERE x.order_id = b.order_id AND x.says = b.says AND y.state = 'posted' AND y.id <> b.bill_id) AS broughtBefore,
       (SELECT IF(o.state IN ('placed','part-received'), SUM(z.open_units), 0) FROM purchase_order_line z WHERE z.order_id = b.order_id) AS openUnits
     FROM bill_line b LEFT JOIN purchase_order_line l ON l.id = b.order_line_id LEFT JOIN item i ON i.id = l.item_id JOIN purchase_order o ON o.id = COALESCE(l.order_id, b.order_id)
     WHERE b.bill_id = ? ORDER BY b.line`,
    [billId],
  );
}

/** How a line stands beside its order and what came. A charge that the order did not name comes late, and fits. */
export function findingOf(line: BillLineRow, tolerance: Tolerance): Finding {
  if (line.orderLineId !== null)
    return matchLine(
      {
        units: line.units ?? 0,
        amount: line.amount,
        open: num(line.received) - num(line.billedBefore),
        price: line.price ?? '0',
        factor: line.factor ?? 1,
      },
      tolerance,
    );
  const promised = micro(line.promised ?? '0');
  if (promised <= 0n) return { says: 'late', expected: '0.000000', difference: decimalText(micro(line.amount)), over: 0 };
  const difference = micro(line.amount) - promised;
  const says = within(difference, promised, tolerance) ? 'fits' : difference > 0n ? 'dearer' : 'cheaper';
  return { says, expected: decimalText(promised), difference: decimalText(difference), over: 0 };
}

export const fits = (finding: Finding) => finding.says === 'fits' || finding.says === 'late';

/** The layers that an order's receipts made, with what of each was its price or one of its charges. */
export interface ReceivedLayer {
  id: number;
  itemId: number;
  orderLineId: number;
  units: number;
  left: number;
  priced: string;
  unitG: number | null;
  unitMl: string | null;
}

export async function receivedLayers(tx: Pick<Tx, 'query'>, orderId: number, orderLineId: number | null): Promise<ReceivedLayer[]> {
  await holdPools(tx, orderId);
  return rows<ReceivedLayer>(
    tx,
    `SELECT c.id, c.item_id AS itemId, r.order_line_id AS orderLineId, c.units, c.units_left AS \`left\`, u.weight_g AS unitG, u.length_mm * u.width_mm * u.height_mm / 1000 AS unitMl,
       COALESCE((SELECT SUM(p.amount) FROM cost_layer_part p WHERE p.layer_id = c.id AND p.kind = 'price'), 0) AS priced
     FROM receipt r JOIN purchase_order_line l ON l.id = r.order_line_id JOIN cost_layer c ON c.movement_id = r.movement_id JOIN pack_unit u ON u.item_id = c.item_id AND u.factor = 1
     WHERE l.order_id = ? AND (? IS NULL OR l.id = ?) AND r.undone_at IS NULL AND r.taken_as <> 'apart' ORDER BY c.item_id, c.id`,
    [orderId, orderLineId, orderLineId],
  );
}

/** What was put onto goods for a charge of an order when they came, in the house's money. */
export async function putOnFor(tx: Pick<Tx, 'query'>, order: string, says: string): Promise<string> {
  const found = await one<{ amount: string | null }>(
    tx,
    `SELECT SUM(p.amount) AS amount FROM cost_layer_part p JOIN cost_layer c ON c.id = p.layer_id JOIN receipt r ON r.movement_id = c.movement_id AND r.undone_at IS NULL
     WHERE p.kind = 'charge' AND p.document = ? AND p.says LIKE CONCAT(?, ', by %')`,
    [order, says],
  );
  return found?.amount ?? '0';
}

/** What stock of an order's goods is worth stays as it is until the transaction ends; their layers change under their pools only. */
async function holdPools(tx: Pick<Tx, 'query'>, orderId: number): Promise<void> {
  await rows(
    tx,
    'SELECT item_id FROM cost_pool WHERE item_id IN (SELECT item_id FROM purchase_order_line WHERE order_id = ?) ORDER BY item_id FOR UPDATE',
    [orderId],
  );
}
