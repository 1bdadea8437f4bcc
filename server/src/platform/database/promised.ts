/** What a line still holds in SQL, with what has gone to the customer: never more than its units. `line` is its alias. */
export const promisedSql = (line: string) =>
  `(${line}.shipped_units + COALESCE((SELECT SUM(rv.units) FROM reservation rv WHERE rv.order_line_id = ${line}.id), 0))`;
