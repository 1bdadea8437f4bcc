import { Injectable } from '@nestjs/common';
import { listTable, Lists, windows } from '../exchange/index.js';
import type { PurchaseOrderRowDto } from './purchasing.dto.js';
import { PurchasingQueries } from './purchasing.queries.js';

/** The list of orders to suppliers as a file. */
@Injectable()
export class PurchasingFiles {
  constructor(lists: Lists, purchasing: PurchasingQueries) {
    lists.register(
      'purchase-orders',
      (person) =>
        listTable(
          'purchase-orders',
          windows((from, limit) => purchasing.list(person.siteIds, person.seesCosts, { from, limit })),
          [
            ['Order', (o) => o.code],
            ['Supplier', (o) => o.supplier],
            ['Site', (o) => o.site],
            ['State', (o) => o.state],
            ['Expected', (o) => o.expectedOn],
            ['Late', (o) => (o.late ? 'yes' : 'no')],
            ['Lines', (o) => o.lines],
            ['Lines in', (o) => o.linesIn],
            ['Holds', (o) => o.holds],
            ['Buyer', (o) => o.buyer],
            ...(person.seesCosts
              ? [['Worth', (o: PurchaseOrderRowDto) => o.worth] as const, ['Currency', (o: PurchaseOrderRowDto) => o.currency] as const]
              : []),
          ],
        ),
      undefined,
      { daily: 'house' },
    );
  }
}
