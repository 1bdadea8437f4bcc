import { Injectable } from '@nestjs/common';
import { notFound } from '../platform/problem.js';
import type { Shape } from './shape.js';
import { channelsShape, customersShape, listingsShape, sitesShape } from './shapes/house.js';
import { barcodesShape } from './shapes/barcodes.js';
import { itemsShape } from './shapes/items.js';
import { packsShape } from './shapes/packs.js';
import { partsShape } from './shapes/parts.js';
import { placesShape, zonesShape } from './shapes/places.js';
import { planShape } from './shapes/plan.js';
import { policiesShape } from './shapes/policies.js';
import { pricesShape, suppliersShape } from './shapes/suppliers.js';
import { StockShape } from './shapes/stock.js';

/** Every kind of file that can be taken in and given out, in the order in which an empty house needs them. */
@Injectable()
export class Shapes {
  readonly all: readonly Shape[];

  constructor(stock: StockShape) {
    this.all = [
      sitesShape,
      planShape,
      zonesShape,
      placesShape,
      itemsShape,
      packsShape,
      barcodesShape,
      partsShape,
      policiesShape,
      suppliersShape,
      pricesShape,
      customersShape,
      channelsShape,
      listingsShape,
      stock,
    ];
  }

  of(kind: string): Shape {
    const shape = this.all.find((s) => s.kind === kind);
    if (!shape) throw notFound(`A file of ${kind.slice(0, 20)}`);
    return shape;
  }
}
