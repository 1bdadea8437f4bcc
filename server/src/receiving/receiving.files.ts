import { Injectable } from '@nestjs/common';
import { listTable, Lists, windows } from '../exchange/index.js';
import { inboundAsked, InboundLinesQueries } from './inbound-lines.queries.js';

/** Lines that are due, or that came in, as a file. */
@Injectable()
export class ReceivingFiles {
  constructor(lists: Lists, lines: InboundLinesQueries) {
    lists.register(
      'inbound-lines',
      (person, query) =>
        listTable(
          'inbound-lines',
          windows((from, limit) => lines.list(person.siteIds, inboundAsked(query), { from, limit })),
          [
            ['Day', (l) => l.day],
            ['Order', (l) => l.order],
            ['Line', (l) => l.line],
            ['Arrival', (l) => l.arrival],
            ['Supplier', (l) => l.supplier],
            ['Site', (l) => l.site],
            ['SKU', (l) => l.sku],
            ['Name', (l) => l.name],
            ['Units', (l) => l.units],
            ['In packs', (l) => l.words],
            ['Late', (l) => (l.late ? 'yes' : 'no')],
            ['Came as', (l) => l.takenAs],
            ['Condition', (l) => l.condition],
            ['Booked in by', (l) => l.by],
          ],
        ),
      undefined,
      { daily: 'house' },
    );
  }
}
