import { Injectable } from '@nestjs/common';
import { listTable, Lists, windows } from '../exchange/index.js';
import { RoundsQueries } from './rounds.queries.js';

/** The list of rounds as a file. */
@Injectable()
export class PickingFiles {
  constructor(lists: Lists, picking: RoundsQueries) {
    lists.register('rounds', (person) =>
      listTable(
        'rounds',
        windows((from, limit) => picking.list(person.siteIds, person.id, { from, limit })),
        [
          ['Round', (r) => r.code],
          ['Orders', (r) => r.orders.map((o) => o.code).join(' ')],
          ['Customers', (r) => r.orders.map((o) => o.customer).join('; ')],
          ['State', (r) => r.state],
          ['Picker', (r) => r.picker],
          ['Stops', (r) => r.stops],
          ['Stops done', (r) => r.stopsDone],
          ['Units', (r) => r.units],
          ['Metres', (r) => r.metres],
          ['Promised', (r) => r.promisedAt],
        ],
      ),
    );
  }
}
