import { type Act, find, mustBeAt, mustMatch, notFound, type Row, type Tx } from '../platform/index.js';

/** An order that somebody at the desk changes from the version that they saw; its row is held. */
export async function openOrder(tx: Tx, act: Act, code: string, version: number): Promise<Row<'sales_order'>> {
  const order = await find(tx, 'sales_order', { code }, 'lock');
  if (!order) throw notFound(`Order ${code}`);
  mustBeAt(act.person, order.site_id);
  mustMatch(order.version, version);
  return order;
}
