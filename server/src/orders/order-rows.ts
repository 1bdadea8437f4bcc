import { type Change, type Tx, update } from '../platform/index.js';

/** Changes an order's row, for whoever holds it. Its state is kept in step by `OrderStates`, not here. */
export const changeOrder = (tx: Tx, id: number, change: Change<'sales_order'>): Promise<number> =>
  update(tx, 'sales_order', { id }, change);

/** Changes the row of a line whose order is held. */
export const changeLine = (tx: Tx, id: number, change: Change<'sales_order_line'>): Promise<number> =>
  update(tx, 'sales_order_line', { id }, change);
