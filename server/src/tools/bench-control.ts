import type { DataSource } from 'typeorm';

/** A way to ask the server; throws where it refuses. */
export type Ask = (method: string, path: string, body?: object) => Promise<Response>;

const LINES = 10_000;
/** Every so many lines are off. */
const EACH_OFF = 20;
const LOT_MOVEMENTS = 24_000;
const LOT_BINS = 20;
const LOT = 'RECALL-1';
const ASKED = 10;

/** Opening the review of a count of 10,000 lines, and finding and holding all of a lot, with what was moved in two years behind them. */
export async function control(source: DataSource, ask: Ask, say: (text: string) => void): Promise<void> {
  await review(source, ask, say);
  await recall(source, ask, say);
}

async function timed(ask: () => Promise<Response>, times: number): Promise<{ worst: number; text: string }> {
  let [worst, text] = [0, ''];
  for (let i = 0; i < times; i++) {
    const begun = performance.now();
    text = await (await ask()).text();
    worst = Math.max(worst, performance.now() - begun);
  }
  return { worst, text };
}

async function review(source: DataSource, ask: Ask, say: (text: string) => void): Promise<void> {
  const { insertId: count } = await source.query<{ insertId: number }>(
    `INSERT INTO stock_count (code, site_id, title, state, opened_at, reviewed_at, after_movement) SELECT 'N-9001', 1, 'All bins', 'review', UTC_TIMESTAMP(), UTC_TIMESTAMP(), MAX(id) - 20000 FROM movement`,
  );
  await source.query(
    `INSERT INTO count_line (count_id, place_id, item_id, lot_id, listed, state, counted_units, looked_at, person_id)
     SELECT ?, b.place_id, b.item_id, b.lot_id, 1, 'counted', b.units + IF(ROW_NUMBER() OVER (ORDER BY b.item_id) % ${EACH_OFF} = 0, 3, 0), UTC_TIMESTAMP() - INTERVAL 1 HOUR, 1
     FROM balance b JOIN place p ON p.id = b.place_id AND p.site_id = 1 WHERE b.bounded = 1 AND b.units > 0 AND b.stock_condition = 'good' LIMIT ${LINES}`,
    [count],
  );
  for (const [what, path] of [
    ['those that are off', 'counts/N-9001/review'],
    ['all of it', 'counts/N-9001/review?shows=all'],
  ] as const) {
    const { worst, text } = await timed(() => ask('GET', path), ASKED);
    say(
      `review of a count of ${LINES.toLocaleString('en-GB')} lines, ${what}: ${worst.toFixed(0)} ms at worst of ${ASKED}, ${(text.length / 1e3).toFixed(0)} kB; to be under 1,000 ms`,
    );
  }
}

/** A lot that came in and went out for two years, and still lies in many bins. */
async function recall(source: DataSource, ask: Ask, say: (text: string) => void): Promise<void> {
  const [item] = await source.query<{ id: number; sku: string }[]>('SELECT id, sku FROM item ORDER BY id LIMIT 1 OFFSET 17');
  const [outside] = await source.query<{ id: number }[]>(`SELECT id FROM place WHERE code = 'COUNT-DIFFERENCE'`);
  if (!item || !outside) throw new Error('The house has no goods');
  await source.query(`UPDATE item SET tracking = 'lot' WHERE id = ?`, [item.id]);
  const { insertId: lot } = await source.query<{ insertId: number }>('INSERT INTO lot (item_id, code) VALUES (?, ?)', [item.id, LOT]);
  const bins = `(SELECT id, ROW_NUMBER() OVER (ORDER BY id) - 1 AS n FROM place WHERE site_id = 1 AND aisle_id IS NOT NULL LIMIT ${LOT_BINS})`;
  const each = LOT_MOVEMENTS / LOT_BINS / 2;
  for (const [from, to, units] of [
    ['?', 'b.id', 2],
    ['b.id', '?', 1],
  ] as const)
    await source.query(
      `INSERT INTO movement (item_id, lot_id, from_place_id, to_place_id, units, task, document, person_id, server_at)
       SELECT ?, ?, ${from}, ${to}, ${units}, 'move', CONCAT('S-', 100000 + seq), 1, UTC_TIMESTAMP() - INTERVAL seq HOUR FROM seq_1_to_${each} JOIN ${bins} b`,
      [item.id, lot, outside.id],
    );
  await source.query(
    `INSERT INTO balance (item_id, place_id, lot_id, units, bounded, site_id) SELECT ?, b.id, ?, ${each}, 1, 1 FROM ${bins} b`,
    [item.id, lot],
  );
  await source.query('INSERT INTO balance (item_id, place_id, lot_id, units, bounded) VALUES (?, ?, ?, ?, 0)', [
    item.id,
    outside.id,
    lot,
    -each * LOT_BINS,
  ]);
  await source.query(
    'INSERT INTO site_stock (site_id, item_id, on_hand) VALUES (1, ?, ?) ON DUPLICATE KEY UPDATE on_hand = on_hand + VALUES(on_hand)',
    [item.id, each * LOT_BINS],
  );
  const which = `sku=${item.sku}&lot=${LOT}`;
  const traced = await timed(() => ask('GET', `trace?${which}`), ASKED);
  const held = await timed(() => ask('POST', `trace/hold?${which}`, { reason: 'Found cloudy' }), 1);
  const { units } = JSON.parse(held.text) as { units: number };
  say(
    `a lot that moved ${LOT_MOVEMENTS.toLocaleString('en-GB')} times: traced in ${traced.worst.toFixed(0)} ms at worst of ${ASKED}; held in all ${LOT_BINS} bins (${units.toLocaleString('en-GB')} units) in ${held.worst.toFixed(0)} ms; to be under 1,000 ms`,
  );
}
