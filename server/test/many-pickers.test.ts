import { seeded } from '@vectrum/core/random';
import type { FloorCommand, SortTask } from '@vectrum/core/scan';
import { Picker } from '../src/tools/pickers.js';
import { type Caller, House } from './house.js';

const PICKERS = 8;
const ORDERS = 36;
/** The first of the rounds are picked for their orders together. */
const POOLED = 2;
const SKUS = ['SMK-LGE', 'SMK-SML', 'BRSH-BEE', 'TOOL-STD', 'UNC-FORK', 'MRK-PEN'];
const BINS = ['A-02-1', 'A-07-1', 'B-03-1', 'B-08-1', 'C-04-1', 'D-05-1', 'E-06-1', 'F-02-1'];

/** Many people on many rounds, with all that goes wrong on a floor: everything ends picked or explained. */
describe('many pickers at once', () => {
  let house: House;
  beforeAll(async () => {
    house = await House.open();
  });
  // Closing checks the ledger, and what is promised against what orders hold.
  afterAll(() => house.close());

  it('leave no order half done, whatever is scanned wrong, missing, repeated, dropped or late', async () => {
    const random = seeded(11);
    for (const [i, sku] of SKUS.entries())
      for (const bin of [BINS[i % BINS.length]!, BINS[(i + 3) % BINS.length]!]) await house.stock(sku, bin, 60);
    const orders: string[] = [];
    for (let i = 0; i < ORDERS; i++) {
      const own = [...new Set([0, 1, 2].map(() => SKUS[Math.floor(random() * SKUS.length)]!))];
      orders.push(await house.order(own.map((sku) => [sku, 1 + Math.floor(random() * 5)])));
    }
    const maren = await house.as('Maren');
    const rounds = [];
    for (let i = 0; i < ORDERS; i += 3) {
      const group = await Promise.all(
        orders
          .slice(i, i + 3)
          .map(async (code) => ({ code, version: ((await maren.get(`orders/${code}`)).body as { version: number }).version })),
      );
      rounds.push({ orders: group, sentTo: null, pooled: i < POOLED * 3 });
    }
    const sent = (await maren.post('rounds', { siteId: 1, rounds }).expect(201)).body as { rounds: string[] };
    const totes = (
      await house.source.query<{ code: string }[]>(
        `SELECT p.code FROM place p LEFT JOIN tote_use u ON u.open_tote = p.id WHERE p.kind = 'tote' AND p.site_id = 1 AND u.id IS NULL ORDER BY p.id`,
      )
    ).map((t) => t.code);
    for (let n = totes.length; n < 400; n++) totes.push(await tote(n));
    const pickers = await Promise.all(
      Array.from({ length: PICKERS }, async (_, i) => {
        const who = await house.as(i % 2 ? 'Ines' : 'Joss');
        return new Picker(
          {
            get: async (path) => (await who.get(path).expect(200)).body as unknown,
            send: async (command: FloorCommand, late) => {
              const { id, ...rest } = command;
              const { status } = await who.floor(rest, { id, late });
              if (status >= 500) throw new Error(`${command.kind} was answered with ${status}`);
              return status;
            },
          },
          seeded(100 + i),
          { wrongScan: 0.08, short: 0.04, dropOut: 0.03, repeat: 0.1, offline: 0.05 },
          1,
          'TABLE-1',
          0,
        );
      }),
    );
    const share = Math.floor(totes.length / PICKERS);
    const reports = await Promise.all(pickers.map((p, i) => p.work(totes.slice(i * share, (i + 1) * share))));
    const sum = (of: 'picks' | 'shorts' | 'refusedHere' | 'refusedThere') => reports.reduce((n, r) => n + r[of], 0);
    expect(sum('picks')).toBeGreaterThan(ORDERS);
    expect(sum('shorts')).toBeGreaterThan(0);
    // What was picked together is sorted by two at once, now and then into a wrong slot, and some of it is in no tote.
    const sorters = [await house.as('Ines'), await house.as('Joss')];
    for (const round of sent.rounds.slice(0, POOLED)) await Promise.all(sorters.map((who) => sorted(who, round, random)));
    const states = await Promise.all(orders.map(async (code) => ((await maren.get(`orders/${code}`)).body as { state: string }).state));
    // Picked, or waiting again for what was not there.
    expect(states.filter((s) => s !== 'picked' && s !== 'open')).toEqual([]);
    const left = await house.source.query<{ n: number }[]>(
      `SELECT COUNT(*) AS n FROM round_stop s JOIN \`round\` r ON r.id = s.round_id WHERE s.picked_units + s.short_units < s.units AND r.state IN ('set-down','done')`,
    );
    expect(Number(left[0]!.n)).toBe(0);
  });

  async function sorted(who: Caller, round: string, random: () => number): Promise<void> {
    for (let turn = 0; turn < 200; turn++) {
      const { goods, slots } = await who.task<SortTask>('sort', round);
      const g = goods[Math.floor(random() * goods.length)];
      if (!g) return;
      const { orderId, itemId, lotId, toteId: fromPlaceId } = g;
      const about = { round, orderId, itemId, lotId, fromPlaceId, units: 1 + Math.floor(random() * g.units) };
      const own = slots.find((s) => s.orderId === orderId) ?? slots.find((s) => s.orderId === null && !s.busy);
      const slot = random() < 0.2 ? slots[Math.floor(random() * slots.length)] : own;
      const answer =
        random() < 0.05
          ? await who.floor({ kind: 'sort-missing', ...about })
          : await who.floor({ kind: 'sort', ...about, slotPlaceId: slot!.placeId, how: 'scanned' });
      expect(answer.status).toBeLessThan(500);
    }
    throw new Error(`${round} is not sorted after 200 turns`);
  }

  async function tote(n: number): Promise<string> {
    const code = `X-${n}`;
    await house.source.query(
      `INSERT INTO place (code, kind, site_id, parent_id, pickable, walk_order) SELECT ?, 'tote', site_id, parent_id, 0, 0 FROM place WHERE code = 'T-01'`,
      [code],
    );
    return code;
  }
});
