import { sqlList } from '../platform/index.js';

/** Transfers whose goods have left their site and are not all in. */
export const ON_ROAD = sqlList(['on-the-road', 'arriving']);

/** How many of an item are on the road to a site, in SQL. */
export const onRoadSql = (item: string, site: string) =>
  `COALESCE((SELECT SUM(tg.units - tg.received_units - tg.lost_units) FROM transfer_goods tg JOIN transfer tt ON tt.id = tg.transfer_id WHERE tg.item_id = ${item} AND tt.to_site_id = ${site} AND tt.state IN ${ON_ROAD}), 0)`;
