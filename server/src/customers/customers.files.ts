import { Injectable } from '@nestjs/common';
import { listTable, Lists, Shapes, windows } from '../exchange/index.js';
import { addressesShape, customerPricesShape, customersShape } from './customers.shape.js';
import { CustomersService } from './customers.service.js';

/** Files of customers, in and out. */
@Injectable()
export class CustomersFiles {
  constructor(shapes: Shapes, lists: Lists, customers: CustomersService) {
    shapes.register(customersShape, addressesShape, customerPricesShape);
    lists.register('customers', (_person, query) =>
      listTable(
        'customers',
        windows((from, limit) => customers.list(query['search'] ?? '', { from, limit })),
        [
          ['Customer', (c) => c.code],
          ['Name', (c) => c.name],
          ['E-mail', (c) => c.email],
          ['Telephone', (c) => c.phone],
          ['Address', (c) => c.addressLine],
          ['City', (c) => c.city],
          ['Postcode', (c) => c.postcode],
          ['Country', (c) => c.country],
          ['Pays within days', (c) => c.termsDays],
        ],
      ),
    );
  }
}
