import { Injectable } from '@nestjs/common';
import { Shapes } from '../exchange/index.js';
import { OpeningStockShape } from './opening-stock.shape.js';

/** The file of opening stock, in and out: what comes is shared out at once. */
@Injectable()
export class AllocationFiles {
  constructor(shapes: Shapes, stock: OpeningStockShape) {
    shapes.register(stock);
  }
}
