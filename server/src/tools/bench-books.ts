import type { INestApplication } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { JournalQueries, JournalService, ValueQueries } from '../books/index.js';
import { actAs } from '../demo/index.js';
import { addDays, find } from '../platform/index.js';

const ENTRIES = 1_000_000;
const DAYS = 365;
const AT_ONCE = 50_000;
/** Rows of a file that are written before memory is looked at once more. */
const LOOK_EVERY = 20_000;
const seconds = (ms: number) => `${(ms / 1000).toFixed(2)} s`;

/** A year of the journal, written in pairs that leave stock as it is; then value as of days, and a month's export. */
export async function books(app: INestApplication, source: DataSource, say: (text: string) => void): Promise<void> {
  await source.query('CREATE TABLE bench_item (n INT PRIMARY KEY AUTO_INCREMENT, item_id INT UNSIGNED NOT NULL)');
  await source.query('INSERT INTO bench_item (item_id) SELECT item_id FROM cost_pool WHERE units > 0 ORDER BY item_id');
  const [{ n = '1' } = {}] = await source.query<{ n: string }[]>('SELECT COUNT(*) AS n FROM bench_item');
  // No statement runs for longer than the house allows one to.
  for (let from = 1; from <= ENTRIES; from += AT_ONCE)
    await source.query(
      `INSERT INTO value_entry (at, item_id, document, debit, credit, amount)
       SELECT UTC_TIMESTAMP(3) - INTERVAL ROUND((${ENTRIES} - s.seq) * ${DAYS * 1440} / ${ENTRIES}) MINUTE, i.item_id, CONCAT('S-', 900000 + s.seq DIV 4), IF(s.seq % 2 = 0, 'stock', 'cost of goods'), IF(s.seq % 2 = 0, 'cost of goods', 'stock'), 1 + s.seq DIV 2 % 97
       FROM seq_${from}_to_${from + AT_ONCE - 1} s JOIN bench_item i ON i.n = 1 + s.seq DIV 2 % ${Number(n)}`,
    );
  await source.query('DROP TABLE bench_item');
  const today = new Date().toISOString().slice(0, 10);
  const value = app.get(ValueQueries);
  const times: string[] = [];
  for (const back of [1, 30, 180, DAYS]) {
    const begun = performance.now();
    await value.list({ on: addDays(today, -back), by: 'item', search: '' }, { from: 0, limit: 200 });
    times.push(`${back} days ago ${seconds(performance.now() - begun)}`);
  }
  say(`Value of stock as of a day, over ${ENTRIES.toLocaleString('en-GB')} entries of the journal: ${times.join(', ')}`);
  await exportOf(app, source, say, addDays(today, -DAYS + 30));
}

async function exportOf(app: INestApplication, source: DataSource, say: (text: string) => void, through: string): Promise<void> {
  const begun = performance.now();
  const { code } = await app.get(JournalService).export(await actAs(source, 'Beth'), through);
  const taken = performance.now() - begun;
  const made = await find(source, 'journal_export', { code });
  const before = process.memoryUsage().heapUsed;
  let [rows, most] = [0, before];
  for await (const _ of app.get(JournalQueries).of(made?.id ?? 0))
    if (++rows % LOOK_EVERY === 0) most = Math.max(most, process.memoryUsage().heapUsed);
  say(
    `Export of a month of it, ${rows.toLocaleString('en-GB')} entries: taken ${seconds(taken)}, read out ${seconds(performance.now() - begun - taken)}, heap ${Math.round((most - before) / 1e6)} MB more at most`,
  );
}
