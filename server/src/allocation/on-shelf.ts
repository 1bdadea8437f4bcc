import { kindsFor } from '@vectrum/core/places';
import { sqlList } from '../platform/index.js';

/**
 * Whether what is promised out of a bin waits there for the packing table, since no round goes for it, in SQL. `held` is the alias of
 * its reservation, `place` that of the bin.
 */
export const onShelfSql = (held: string, place: string): string =>
  `(${place}.kind IN ${sqlList(kindsFor('shelf'))} AND NOT EXISTS (SELECT 1 FROM round_stop os JOIN \`round\` orr ON orr.id = os.round_id
    WHERE os.order_line_id = ${held}.order_line_id AND os.place_id = ${held}.place_id AND os.lot_id = ${held}.lot_id AND os.units > os.picked_units + os.short_units AND orr.state IN ('waiting','picking')))`;
