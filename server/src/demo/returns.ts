import { randomUUID } from 'node:crypto';
import type { CameAs, Fate, ReturnReason, Wish } from '@vectrum/core/customer-returns';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ComingBack, CustomerReturns, Settling } from '../customer-returns/index.js';
import { InvoicesService } from '../invoicing/index.js';
import { type Act, find, inTransaction, rows } from '../platform/index.js';
import { DemoLeaving } from './leaving.js';
import { actAs } from './morning.js';

const fresh = (act: Act): Act => ({ ...act, key: randomUUID() });

/** What customers sent back: one that is settled, two that are here to be decided, one that is announced. */
@Injectable()
export class DemoReturns {
  constructor(
    private readonly source: DataSource,
    private readonly leaving: DemoLeaving,
    private readonly returns: CustomerReturns,
    private readonly comingBack: ComingBack,
    private readonly settling: Settling,
    private readonly invoices: InvoicesService,
  ) {}

  async sendBack(): Promise<void> {
    const [orla, beth] = await Promise.all([actAs(this.source, 'Orla'), actAs(this.source, 'Beth')]);
    const left = async (account: string, daysAgo: number, goods: readonly [sku: string, quantity: number, price: string][]) => {
      const order = await this.leaving.left(account, daysAgo, goods);
      await this.invoices.invoice(fresh(beth), { orders: [order] });
      return order;
    };
    const jackets = await left('ALDERBEES', 12, [['JKT-M', 3, '48.00'], ['BOK-QUEN', 2, '11.00']]); // prettier-ignore
    const settled = await this.announce(orla, jackets, [[1, 1, 'not-as-described', 'Two sizes too small for an M']], 'refund');
    await this.back(settled, 1, 1, 'as-new', 'shelf');
    await this.settle(orla, settled, 'Not as described');

    const books = await left('MOORFOOT', 6, [['BOK-MEAD', 5, '9.50'], ['BOK-KIDS', 4, '6.80']]); // prettier-ignore
    const wet = await this.announce(orla, books, [[1, 2, 'damaged-on-the-way', 'The carton was soaked through']], 'exchange');
    await this.back(wet, 1, 2, 'damaged', 'quarantine', 'pages stuck together');

    const smokers = await left('WICKHILL', 4, [['SMK-LGE', 2, '24.50']]); // prettier-ignore
    const faulty = await this.announce(orla, smokers, [[1, 1, 'faulty', 'The bellows have a hole']], 'repair');
    await this.back(faulty, 1, 1, 'faulty', 'supplier', 'seam of the bellows is open');

    const twice = await left('THORNLEA', 3, [['JKT-L', 2, '48.00']]); // prettier-ignore
    const last = await this.announce(orla, twice, [[1, 1, 'unwanted', 'Ordered one too many']], 'refund');
    for (const [code, days] of [
      [settled, 8],
      [wet, 3],
      [faulty, 2],
      [last, 1],
    ] as const) {
      // prettier-ignore
      await this.source.query(
        'UPDATE customer_return SET announced_at = announced_at - INTERVAL ? DAY, came_at = came_at - INTERVAL ? DAY, settled_at = settled_at - INTERVAL ? DAY WHERE code = ?',
        [days, days - 1, days - 2, code],
      );
      await this.source.query(
        'UPDATE came_back b JOIN customer_return_line l ON l.id = b.line_id JOIN customer_return r ON r.id = l.return_id SET b.at = r.came_at WHERE r.code = ?',
        [code],
      );
    }
  }

  private async announce(
    orla: Act,
    order: string,
    lines: readonly (readonly [line: number, units: number, reason: ReturnReason, note: string])[],
    wish: Wish,
  ): Promise<string> {
    const known = await this.lines(order);
    const { code } = await this.returns.announce(fresh(orla), {
      order,
      wish,
      lines: lines.map(([line, units, reason, note]) => ({ orderLine: known.get(line)?.id ?? 0, units, reason, note })),
    });
    return code;
  }

  private async back(code: string, line: number, units: number, cameAs: CameAs, fate: Fate, note = ''): Promise<void> {
    const ruben = fresh(await actAs(this.source, 'Ruben'));
    const [of] = await rows<{ order: string }>(
      this.source,
      'SELECT o.code AS `order` FROM customer_return r JOIN sales_order o ON o.id = r.order_id WHERE r.code = ?',
      [code],
    );
    const known = (await this.lines(of?.order ?? '')).get(line);
    await inTransaction(this.source, (tx) =>
      this.comingBack.take(tx, ruben, {
        kind: 'come-back',
        id: ruben.key,
        code,
        orderLineId: known?.id ?? 0,
        itemId: known?.itemId ?? 0,
        units,
        lot: null,
        number: null,
        cameAs,
        fate,
        note,
        how: 'scanned',
      }),
    );
  }

  private async settle(orla: Act, code: string, why: string): Promise<void> {
    const found = await find(this.source, 'customer_return', { code });
    await this.settling.settle(fresh(orla), code, found?.version ?? 0, { settlement: 'refund', why });
  }

  private async lines(order: string): Promise<Map<number, { id: number; itemId: number }>> {
    const found = await rows<{ id: number; line: number; itemId: number }>(
      this.source,
      'SELECT l.id, l.line, l.item_id AS itemId FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE o.code = ?',
      [order],
    );
    return new Map(found.map((l) => [l.line, l]));
  }
}
