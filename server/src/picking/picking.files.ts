import { Injectable } from '@nestjs/common';
import { listTable, Lists, windows } from '../exchange/index.js';
import { PickingQueries } from './picking.queries.js';

/** The list of rounds as a file. */
@Injectable()
export class PickingFiles {
  constructor(lists: Lists, picking: PickingQueries) {
    lists.register('rounds', (person) =>
      listTable(
        'rounds',
        windows((from, limit) => picking.list(person.siteIds, person.id, { from, limit })),
        [
          ['Round', (r) => r.code],
          ['Order', (r) => r.order],
          ['Customer', (r) => r.customer],
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
