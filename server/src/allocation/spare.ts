/** How many of a balance of good goods are held there for no order, in SQL. `balance` is its alias. */
export const spareSql = (balance: string) =>
  `(CAST(${balance}.units AS SIGNED) - COALESCE((SELECT SUM(sv.units) FROM reservation sv WHERE sv.place_id = ${balance}.place_id AND sv.item_id = ${balance}.item_id AND sv.lot_id = ${balance}.lot_id), 0))`;
