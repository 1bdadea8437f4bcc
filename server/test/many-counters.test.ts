import { seeded } from '@vectrum/core/random';
import type { TallyTask } from '@vectrum/core/scan';
import { type Caller, House } from './house.js';

const SKU = 'CAGE-QN';
const BINS = 60;
const LATE_MS = 4_000;
/** Nobody counts a bin and moves its goods within less; a request takes some milliseconds, whose length nobody knows. */
const APART_MS = 30;

let house: House;
let maren: Caller;
let people: Caller[];
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  people = [maren, await house.as('Joss'), await house.as('Ines')];
});
afterAll(() => house.close());

/**
 * What lies in each bin is known here; people count it while others move goods, some of them with phones that tell later. However it
 * mixes, the books say in the end what lies there.
 */
describe('many bins counted while goods move', () => {
  it('end with the books saying what lies in each, and nothing made or lost', async () => {
    const random = seeded(11);
    const upTo = (n: number) => Math.floor(random() * n);
    const itemId = await house.itemId(SKU);
    const bins = await house.source.query<{ id: number; code: string }[]>(
      `SELECT id, code FROM place WHERE site_id = 1 AND kind IN ('pick-face','reserve') AND code REGEXP '^[EFG]-' ORDER BY id LIMIT ${BINS}`,
    );
    const there = new Map<number, number>();
    for (const { id, code } of bins) {
      const booked = 5 + upTo(30);
      await house.stock(SKU, code, booked);
      // Every third bin is not as the books say.
      there.set(id, Math.max(0, booked + (upTo(3) === 0 ? upTo(9) - 4 : 0)));
    }
    const { code } = (
      await maren
        .post('counts', { siteId: 1, by: 'bins', words: bins.map((b) => b.code), most: 500, title: 'All', blind: true, scanEach: false })
        .expect(201)
    ).body as { code: string };
    await maren.post(`counts/${code}/open`, {}, { 'if-match': '"1"' }).expect(200);

    const waiting: (() => Promise<void>)[] = [];
    let questions = 0;
    /** Goods go from bin to bin, now; the phone tells of it at once or later. */
    const move = async () => {
      const [from, to] = [bins[upTo(bins.length)]!, bins[upTo(bins.length)]!];
      const units = Math.min(there.get(from.id)!, 1 + upTo(3));
      if (from.id === to.id || units === 0) return;
      const madeAt = new Date().toISOString();
      const who = people[upTo(people.length)]!;
      const tell = async () => {
        const command = {
          kind: 'move',
          fromPlaceId: from.id,
          toPlaceId: to.id,
          goods: [{ itemId, lotId: 0, condition: 'good', units }],
          how: 'scanned',
        };
        const answer = await who.floor(command, { madeAt, late: true }, { 'device-time': new Date().toISOString() });
        // Where the books have fewer than lies there it becomes a question, which is answered once the count is booked.
        if (answer.status !== 200) questions += 1;
      };
      there.set(from.id, there.get(from.id)! - units);
      there.set(to.id, there.get(to.id)! + units);
      if (upTo(3) === 0) waiting.push(tell);
      else await tell();
    };
    const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
    const count = async (bin: { id: number }, who: Caller) => {
      const units = there.get(bin.id)!;
      const command = {
        kind: 'tally',
        document: code,
        placeId: bin.id,
        itemId,
        lot: null,
        expires: null,
        isDamaged: false,
        units,
        isLast: true,
        agoMs: 0,
        how: 'scanned',
      };
      const answer = await who.floor(command, { madeAt: new Date().toISOString() }, { 'device-time': new Date().toISOString() });
      expect(answer.status).toBe(200);
    };
    for (const [i, bin] of bins.entries()) {
      await count(bin, people[i % people.length]!);
      await pause(APART_MS);
      if (i % 2 === 0) await move();
      await pause(APART_MS);
    }
    const task = await maren.task<TallyTask>('tally', code);
    expect(task.bins.every((b) => b.state === 'counted')).toBe(true);
    // Half of what the phones still hold comes before the count is booked, half afterwards.
    for (const tell of waiting.splice(0, Math.ceil(waiting.length / 2))) await tell();
    const sheet = async () => (await maren.get(`counts/${code}`).expect(200)).body as { version: number; state: string };
    await maren.post(`counts/${code}/close`, { leaveOut: false }, { 'if-match': `"${(await sheet()).version}"` }).expect(200);
    const review = async () =>
      (await maren.get(`counts/${code}/review?shows=undecided&limit=500`).expect(200)).body as { rows: { id: number; by: string }[] };
    // Nobody decides on what they counted themselves; in this house the reviewer does on all.
    const reviewer = await house.as('Corin');
    for (let turn = 0; turn < 5; turn++) {
      const open = (await review()).rows.map((r) => r.id);
      if (open.length === 0) break;
      await reviewer.post(`counts/${code}/accept`, { lineIds: open }, { 'if-match': `"${(await sheet()).version}"` }).expect(200);
    }
    expect((await sheet()).state).toBe('closed');
    await pause(LATE_MS - 2_000);
    for (const tell of waiting) await tell();
    const asked = (await maren.get('floor/questions').expect(200)).body as { id: string }[];
    expect(asked).toHaveLength(questions);
    for (const { id } of asked) await maren.post(`floor/questions/${id}/answer`, { answer: 'again' });
    expect((await maren.get('floor/questions').expect(200)).body).toEqual([]);
    for (const { id, code: place } of bins) expect([place, await house.balance(SKU, place)]).toEqual([place, there.get(id)]);
  });
});
