import { Injectable } from '@nestjs/common';
import { listTable, Lists, Shapes, windows } from '../exchange/index.js';
import { breaksShape, contactsShape, pricesShape, suppliersShape } from './suppliers.shape.js';
import { SuppliersService } from './suppliers.service.js';

/** Files of suppliers and their prices, in and out. */
@Injectable()
export class SuppliersFiles {
  constructor(shapes: Shapes, lists: Lists, suppliers: SuppliersService) {
    shapes.register(suppliersShape, contactsShape, pricesShape, breaksShape);
    lists.register('suppliers', (_person, query) =>
      listTable(
        'suppliers',
        windows((from, limit) => suppliers.list(query['search'] ?? '', { from, limit })),
        [
          ['Supplier', (s) => s.code],
          ['Name', (s) => s.name],
          ['E-mail', (s) => s.email],
          ['Telephone', (s) => s.phone],
          ['Currency', (s) => s.currency],
          ['Lead time, days', (s) => s.leadDays],
        ],
      ),
    );
  }
}
