import { Injectable } from '@nestjs/common';
import { atRate, goodsWorth, shareOfUnits } from '@vectrum/core/costing';
import { fractionText, micro, priceText, type Fraction } from '@vectrum/core/money';
import { one, type Tx } from '../../platform/index.js';
import { costedOrder, shareLine, sharesOf } from './order-shares.js';
import type { Worth } from './value.service.js';

const rounded = (f: Fraction) => micro(fractionText(f));

/** What goods cost as they stand in the house: their price, and what falls on them of the order's charges. */
@Injectable()
export class LandedService {
  /** The worth of units of an order's line. Charges fall only on what was ordered, so that they are never given out twice. */
  async of(tx: Tx, lineId: number, units: number, withCharges: boolean): Promise<Worth> {
    const found = await one<{ orderId: number }>(tx, 'SELECT order_id AS orderId FROM purchase_order_line WHERE id = ?', [lineId]);
    const order = await costedOrder(tx, found?.orderId ?? 0);
    const at = order.lines.findIndex((l) => l.lineId === lineId);
    const line = order.lines[at];
    if (!line) return { value: 0n, parts: [] };
    const home = (f: Fraction) => rounded(atRate(f, order.rate));
    const foreign = Number(order.rate) === 1 ? '' : ` ${order.currency} at ${order.rate.replace(/0+$/, '').replace(/\.$/, '')}`;
    const parts: Worth['parts'][number][] = [
      {
        kind: 'price',
        says: `Price ${priceText(micro(line.price))} for ${line.factor}${foreign}`,
        document: line.order,
        amount: home(goodsWorth(line.price, units, line.factor)),
      },
    ];
    if (withCharges) {
      const whole = order.lines.map((l) => shareLine(l, l.ordered));
      for (const charge of order.charges) {
        const share = sharesOf(charge, whole)[at] ?? '0';
        parts.push({
          kind: 'charge',
          says: `${charge.says}, by ${charge.by}${foreign}`,
          document: line.order,
          amount: home(shareOfUnits(share, units, line.ordered)),
        });
      }
    }
    return { value: parts.reduce((sum, p) => sum + p.amount, 0n), parts };
  }
}
