import type { INestApplicationContext } from '@nestjs/common';
import { seeded } from '@vectrum/core/random';
import { weekOfDate } from '@vectrum/core/replenish';
import type { DataSource } from 'typeorm';
import { Planner } from '../planning/index.js';
import { insertMany, num, one, rows, siteDay } from '../platform/index.js';

const WEEKS = 156;
const CHUNK = 5_000;

/** Three years of demand for so many items at so many sites: a third even, a third with seasons, a third now and then. */
async function history(source: DataSource, items: readonly number[], sites: readonly number[]): Promise<number> {
  const random = seeded(31);
  const now = weekOfDate((await siteDay(source, null)).today);
  let [chunk, written]: [unknown[][], number] = [[], 0];
  const flush = async () => {
    if (chunk.length > 0) await insertMany(source, 'demand_week', ['site_id', 'item_id', 'week', 'given_units'], chunk);
    written += chunk.length;
    chunk = [];
  };
  for (const site of sites)
    for (const [n, item] of items.entries()) {
      const usual = 2 + Math.exp(random() * 4);
      for (let back = WEEKS; back >= 1; back -= 1) {
        const season = n % 3 === 1 ? 1 + 0.6 * Math.sin((2 * Math.PI * (now - back)) / 52) : 1;
        const units = n % 3 === 2 && random() > 0.2 ? 0 : Math.round(usual * season * (0.5 + random()));
        if (units > 0) chunk.push([site, item, now - back, units]);
        if (chunk.length >= CHUNK) await flush();
      }
    }
  await flush();
  return written;
}

/** Plans so many items at so many sites with three years behind them, then once more as on a morning when little has changed. */
export async function planning(
  app: INestApplicationContext,
  source: DataSource,
  say: (text: string) => void,
  most = { items: 1_000, sites: 2 },
): Promise<void> {
  const sites = (await rows<{ id: number }>(source, 'SELECT id FROM site ORDER BY id')).slice(0, most.sites).map((s) => s.id);
  await source.query('DELETE FROM item_plan');
  await source.query('DELETE FROM demand_week');
  const known = (await rows<{ id: number }>(source, `SELECT id FROM item WHERE kind = 'single' ORDER BY id LIMIT ${most.items}`)).map(
    (i) => i.id,
  );
  for (let n = known.length; n < most.items; n += 1) {
    const id = Number(
      (
        await source.query<{ insertId: number }>("INSERT INTO item (sku, name, class, cost) VALUES (?, 'Bench goods', 'Bench', 2)", [
          `BENCH-${n}`,
        ])
      ).insertId,
    );
    await source.query("INSERT INTO pack_unit (item_id, name, plural, factor) VALUES (?, 'piece', 'pieces', 1)", [id]);
    known.push(id);
  }
  const weeks = await history(source, known, sites);
  for (const site of sites)
    await source.query(`INSERT INTO item_plan (site_id, item_id, due_at) SELECT ?, id, UTC_TIMESTAMP(3) FROM item WHERE id IN (?)`, [
      site,
      known,
    ]);
  const planner = app.get(Planner);
  const all = known.length * sites.length;
  let memory = 0;
  const watch = setInterval(() => (memory = Math.max(memory, process.memoryUsage().rss)), 100);
  const timed = async (work: () => Promise<unknown>) => {
    const begun = performance.now();
    await work();
    return (performance.now() - begun) / 1000;
  };
  await planner.look(sites, false);
  const first = await timed(() => planner.runDue());
  const due = await one<{ n: string }>(source, 'SELECT COUNT(*) AS n FROM item_plan WHERE due_at IS NOT NULL');
  if (num(due?.n) > 0) throw new Error(`${num(due?.n)} items were not planned`);
  // Next morning: three items in a hundred were asked for otherwise.
  await source.query('UPDATE demand_week SET given_units = given_units + 1 WHERE item_id % 33 = 0');
  await source.query('UPDATE item_plan SET due_at = UTC_TIMESTAMP(3)');
  const again = await timed(() => planner.runDue());
  clearInterval(watch);
  const minutes = (s: number) => ((s * 150_000) / all / 60).toFixed(1);
  say(
    `${all.toLocaleString('en-GB')} items at sites planned of ${weeks.toLocaleString('en-GB')} weeks of demand in ${first.toFixed(1)} s (150,000 would be ${minutes(first)} min), looked through the next morning in ${again.toFixed(1)} s (${minutes(again)} min), of ${Math.round(memory / 1e6)} MB at most; designed for 5 min on two cores`,
  );
}
