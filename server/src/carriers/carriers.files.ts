import { Injectable } from '@nestjs/common';
import { listTable, Lists, Shapes } from '../exchange/index.js';
import { BoxesService } from './boxes.service.js';
import { CarriersQueries } from './carriers.queries.js';
import { boxesShape, carriersShape, lanesShape, servicesShape } from './carriers.shape.js';

/** Files of carriers and boxes, in and out. */
@Injectable()
export class CarriersFiles {
  constructor(shapes: Shapes, lists: Lists, carriers: CarriersQueries, boxes: BoxesService) {
    shapes.register(carriersShape, lanesShape, servicesShape, boxesShape);
    lists.register('carriers', async (person) =>
      listTable('carriers', await carriers.list(person), [
        ['Carrier', (c) => c.code],
        ['Name', (c) => c.name],
        ['System', (c) => c.baseUrl ?? ''],
        ['Lanes', (c) => c.lanes.map((l) => l.place).join(' ')],
      ]),
    );
    lists.register('boxes', async (person) =>
      listTable('boxes', await boxes.list(person), [
        ['Box', (b) => b.code],
        ['Length, mm', (b) => b.lengthMm],
        ['Width, mm', (b) => b.widthMm],
        ['Height, mm', (b) => b.heightMm],
        ['Weighs, g', (b) => b.tareG],
        ['Carries, g', (b) => b.mostG],
        ['Left', (b) => b.stock.reduce((sum, k) => sum + k.units, 0)],
      ]),
    );
  }
}
