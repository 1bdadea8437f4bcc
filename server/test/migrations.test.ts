import type { SortTask } from '@vectrum/core/scan';
import type { DataSource } from 'typeorm';
import { DemoLoader } from '../src/demo/demo.loader.js';
import { checkOrders } from '../src/orders/order-check.js';
import { rows } from '../src/platform/database/tx.js';
import { checkLedger } from '../src/stock/ledger-check.js';
import { migrations } from '../src/schema/index.js';
import { closing, House, pickOf, type TakenStop } from './house.js';

/** As far back as before the rows that follow the goods. */
const BACK = migrations.length - migrations.findIndex((m) => m.name.startsWith('Reservations'));

/** What stands at the wall is sorted, a slot for each order. */
async function sortAll(house: House): Promise<void> {
  const ines = await house.as('Ines');
  const round = (await rows<{ code: string }>(house.source, `SELECT code FROM \`round\` WHERE pooled = 1 AND state = 'set-down'`))[0]!.code;
  const { goods, slots } = await ines.task<SortTask>('sort', round);
  const slotOf = new Map(slots.flatMap((s) => (s.orderId === null ? [] : [[s.orderId, s.placeId] as const])));
  const free = slots.filter((s) => !s.busy && s.orderId === null).map((s) => s.placeId);
  for (const { orderId, itemId, lotId, units, toteId } of goods) {
    const slotPlaceId = slotOf.get(orderId) ?? free.shift()!;
    slotOf.set(orderId, slotPlaceId);
    await ines.floor({ kind: 'sort', round, orderId, itemId, lotId, units, fromPlaceId: toteId, slotPlaceId, how: 'scanned' }).expect(200);
  }
}

describe('migrations of a filled database', () => {
  it('go back and forth with everything where it was, and work goes on', async () => {
    const house = await House.open({}, false);
    await house.app.get(DemoLoader).loadOnce();
    const maren = await house.as('Maren');
    const split = (
      await rows<{ code: string }>(house.source, `SELECT code FROM sales_order WHERE state = 'picked' ORDER BY id LIMIT 1`)
    )[0]!.code;
    const { lines } = await maren.task<{ lines: { line: number; picked: number }[] }>('pack', split);
    await maren.floor({ kind: 'pack', order: split, parcel: 1, line: lines[0]!.line, units: 1, how: 'scanned' }).expect(200);

    const back = async () => {
      for (let i = 0; i < BACK; i++) await house.source.undoLastMigration();
    };
    await expect(back()).rejects.toThrow('Sort what was picked');
    await house.source.runMigrations();
    await sortAll(house);
    const quotes = (await rows<{ code: string }>(house.source, `SELECT code FROM sales_order WHERE state = 'quote'`)).map((o) => o.code);
    expect(quotes.length).toBeGreaterThan(0);
    const facts = async () => ({
      reserved: await rows(house.source, 'SELECT site_id, item_id, on_hand, held, reserved FROM site_stock ORDER BY site_id, item_id'),
      // A house that knows no quotes keeps them as cancelled.
      states: await rows(house.source, 'SELECT code, state FROM sales_order WHERE code NOT IN (?) ORDER BY id', [quotes]),
      held: await rows(
        house.source,
        'SELECT order_line_id, site_id, item_id, place_id, lot_id, units FROM reservation WHERE units > 0 ORDER BY order_line_id, place_key, lot_id',
      ),
      totes: await rows(house.source, 'SELECT tote_id, order_id FROM tote_use WHERE ended_at IS NULL ORDER BY tote_id'),
      rounds: await rows(
        house.source,
        // A round of several orders becomes one for each where a house goes back to before there were such.
        "SELECT SUBSTRING_INDEX(r.code, '-', 2) AS code, r.state, x.order_id FROM `round` r JOIN round_order x ON x.round_id = r.id ORDER BY x.order_id, r.id",
      ),
    });
    const before = await facts();
    expect(before.held.length).toBeGreaterThan(40);
    expect(before.totes.length).toBeGreaterThan(2);

    const source: DataSource = house.source;
    await back();
    const old = await rows<{ n: string }>(source, 'SELECT COUNT(*) AS n FROM sales_order_line WHERE reserved_units > shipped_units');
    expect(Number(old[0]!.n)).toBeGreaterThan(40);
    await expect(source.query('SELECT 1 FROM reservation')).rejects.toThrow();
    await source.runMigrations();

    expect(await facts()).toEqual(before);
    expect([...(await checkLedger(source)), ...(await checkOrders(source))]).toEqual([]);

    const round = (
      await rows<{ code: string }>(source, `SELECT code FROM \`round\` WHERE state = 'waiting' AND site_id = 1 ORDER BY id LIMIT 1`)
    )[0]!.code;
    const { stops } = await maren.task<{ stops: TakenStop[] }>('pick', round);
    await maren.floor(pickOf(round, stops[0]!, 1, await house.placeId('T-40'))).expect(200);
    await house.packAll(split);
    expect((await maren.floor(closing(split, { carton: 'B4', weightG: 1_000, weightSeen: true }))).status).toBeLessThan(500);
    await house.close();
    // The demo is loaded, and every step taken twice back and forth.
  }, 180_000);
});
