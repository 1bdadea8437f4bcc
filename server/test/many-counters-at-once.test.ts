import { seeded } from '@vectrum/core/random';
import { actAs } from '../src/demo/index.js';
import { inTransaction } from '../src/platform/index.js';
import { checkLedger, LedgerService } from '../src/stock/index.js';
import { type Caller, House } from './house.js';

const SKU = 'CAGE-QN';
const BINS = 500;
const COUNTERS = 10;
const MOVERS = 20;
/** Nobody counts a bin and takes of it within less; a request takes some milliseconds, whose length nobody knows. */
const APART_MS = 40;

let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
});
afterAll(() => house.close());

interface Bin {
  id: number;
  code: string;
  /** What lies in it, whatever the books say. */
  there: number;
  /** Hands reach into a bin one after the other. */
  hands: Promise<unknown>;
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Does something at a bin once whoever was there before has gone. */
function at<T>(bin: Bin, act: () => Promise<T>): Promise<T> {
  const turn = bin.hands.then(act);
  bin.hands = turn.catch(() => undefined).then(() => pause(APART_MS));
  return turn;
}

async function shelves(random: () => number): Promise<Bin[]> {
  const parent = (
    await house.source.query<{ id: number; parent: number }[]>("SELECT id, parent_id AS parent FROM place WHERE code = 'A-01-1'")
  )[0]!;
  const codes = Array.from({ length: BINS }, (_, i) => `X-${String(Math.floor(i / 20) + 1).padStart(2, '0')}-${(i % 20) + 1}`);
  await house.source.query(
    `INSERT INTO place (site_id, parent_id, code, kind, pickable) VALUES ${codes.map(() => "(1, ?, ?, 'pick-face', 1)").join(', ')}`,
    codes.flatMap((code) => [parent.parent, code]),
  );
  const found = await house.source.query<{ id: number; code: string }[]>("SELECT id, code FROM place WHERE code LIKE 'X-__-%' ORDER BY id");
  const bins = found.map((place) => ({ ...place, booked: 20 + Math.floor(random() * 30) }));
  const [act, ledger, itemId] = [await actAs(house.source, 'Maren'), house.app.get(LedgerService), await house.itemId(SKU)];
  await inTransaction(house.source, async (tx) => {
    const fromPlaceId = await ledger.outside(tx, 'count-difference');
    const goods = { itemId, lotId: 0, condition: 'good' as const, fromPlaceId };
    const opening = bins.map((b) => ({ ...goods, toPlaceId: b.id, units: b.booked }));
    await ledger.post(tx, act, opening, { task: 'open', document: 'OPENING' });
  });
  // Every fourth bin is not as the books say.
  const off = () => (random() < 0.25 ? Math.floor(random() * 9) - 4 : 0);
  return bins.map(({ booked, ...place }) => ({ ...place, there: Math.max(0, booked + off()), hands: Promise.resolve() }));
}

describe('five hundred bins', () => {
  it('counted by ten while twenty take from them end with the books saying what lies in each', async () => {
    const random = seeded(500);
    const upTo = (n: number) => Math.floor(random() * n);
    const itemId = await house.itemId(SKU);
    const bins = await shelves(random);
    // Thirty pairs of hands, under three names.
    const people = await Promise.all(['Maren', 'Joss', 'Ines'].map((name) => house.as(name)));
    const { code } = (
      await maren
        .post('counts', { siteId: 1, by: 'bins', words: bins.map((b) => b.code), most: BINS, title: 'All', blind: true, scanEach: false })
        .expect(201)
    ).body as { code: string };
    await maren.post(`counts/${code}/open`, {}, { 'if-match': '"1"' }).expect(200);

    const refused: string[] = [];
    const count = (bin: Bin, who: Caller) =>
      at(bin, async () => {
        const goods = { placeId: bin.id, itemId, lot: null, expires: null, isDamaged: false, units: bin.there };
        const command = { kind: 'tally', document: code, ...goods, isLast: true, agoMs: 0, how: 'scanned' };
        const answer = await who.floor(command, { madeAt: new Date().toISOString() }, { 'device-time': new Date().toISOString() });
        if (answer.status !== 200) refused.push(`${bin.code}: ${JSON.stringify(answer.body)}`);
      });
    let isCounting = true;
    let moved = 0;
    /** Takes a few out of one bin and lays them into another, as a picker would; what the books do not have is left there. */
    const take = async (who: Caller) => {
      const [from, to] = [bins[upTo(BINS)]!, bins[upTo(BINS)]!].sort((a, b) => a.id - b.id) as [Bin, Bin];
      if (from === to) return;
      await at(from, () =>
        at(to, async () => {
          const units = Math.min(from.there, 1 + upTo(2));
          if (units === 0) return;
          const goods = [{ itemId, lotId: 0, condition: 'good', units }];
          const command = { kind: 'move', fromPlaceId: from.id, toPlaceId: to.id, goods, how: 'scanned' };
          const answer = await who.floor(command, { madeAt: new Date().toISOString() }, { 'device-time': new Date().toISOString() });
          if (answer.status !== 200) return;
          from.there -= units;
          to.there += units;
          moved += 1;
        }),
      );
    };
    const counters = Array.from({ length: COUNTERS }, async (_, n) => {
      for (let i = n; i < BINS; i += COUNTERS) await count(bins[i]!, people[n % people.length]!);
    });
    const movers = Array.from({ length: MOVERS }, async (_, n) => {
      while (isCounting) {
        await take(people[n % people.length]!);
        await pause(200);
      }
    });
    await Promise.all(counters);
    isCounting = false;
    await Promise.all(movers);
    expect(refused).toEqual([]);
    expect(moved).toBeGreaterThan(100);

    const sheet = async () => (await maren.get(`counts/${code}`).expect(200)).body as { version: number; state: string };
    await maren.post(`counts/${code}/close`, { leaveOut: false }, { 'if-match': `"${(await sheet()).version}"` }).expect(200);
    const reviewer = await house.as('Corin');
    for (let turn = 0; turn < 5; turn++) {
      const { rows } = (await maren.get(`counts/${code}/review?shows=undecided&limit=500`).expect(200)).body as { rows: { id: number }[] };
      if (rows.length === 0) break;
      const lineIds = rows.map((r) => r.id);
      await reviewer.post(`counts/${code}/accept`, { lineIds }, { 'if-match': `"${(await sheet()).version}"` }).expect(200);
    }
    expect((await sheet()).state).toBe('closed');
    const booked = await house.source.query<{ id: number; units: string }[]>(
      'SELECT place_id AS id, SUM(units) AS units FROM balance WHERE item_id = ? AND place_id IN (?) GROUP BY place_id',
      [itemId, bins.map((b) => b.id)],
    );
    const inBooks = new Map(booked.map((b) => [b.id, Number(b.units)]));
    const wrong = bins
      .filter((b) => (inBooks.get(b.id) ?? 0) !== b.there)
      .map((b) => `${b.code}: ${inBooks.get(b.id) ?? 0}, not ${b.there}`);
    expect(wrong).toEqual([]);
    expect(await checkLedger(house.source)).toEqual([]);
  }, 150_000);
});
