import { Injectable } from '@nestjs/common';
import { listTable, Lists } from '../exchange/index.js';
import { SHOWS } from './order-filter.js';
import { OrdersQueries } from './orders.queries.js';

/** The list of orders as a file. */
@Injectable()
export class OrdersFiles {
  constructor(lists: Lists, orders: OrdersQueries) {
    lists.register('orders', (person, query) =>
      listTable('orders', orders.each(person.siteIds, SHOWS.find((s) => s === query['show']) ?? 'all'), [
        ['Order', (o) => o.code],
        ['Customer', (o) => o.customer],
        ['Channel', (o) => o.channel],
        ['State', (o) => o.state],
        ['Held because', (o) => o.holdReason],
        ['Promised', (o) => o.promisedAt],
        ['Late', (o) => (o.late ? 'yes' : 'no')],
        ['Leaves', (o) => o.leavesAt],
        ['Worth', (o) => o.worth],
        ['In hand', (o) => o.who],
        ['Lines', (o) => o.stock.length],
        ['Lines in stock', (o) => o.stock.filter((s) => s === 'ready' || s === 'gone').length],
      ]),
    );
  }
}
