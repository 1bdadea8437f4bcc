import { seeded } from '@vectrum/core/random';
import { type Caller, House, pickOf, type TakenStop } from './house.js';

interface Stop extends TakenStop {
  placeCode: string;
  picked: number;
  short: number;
}

/** Goods that a round goes for are moved away beneath it: whatever happens, somebody can go on. */
describe('a round whose goods were moved', () => {
  let house: House;
  let ines: Caller;
  let ruben: Caller;
  beforeAll(async () => {
    house = await House.open();
    ines = await house.as('Ines');
    ruben = await house.as('Ruben');
  });
  afterAll(() => house.close());

  const stops = async (round: string) => (await ines.task<{ stops: Stop[] }>('pick', round)).stops;
  const rest = (s: Stop) => s.units - s.picked - s.short;
  const state = async (order: string) => ((await ines.get(`orders/${order}`)).body as { state: string }).state;

  /** Puts goods away from the dock, so that it can be taken back later. Returns the line of the tape. */
  async function putAway(sku: string, bin: string, units: number): Promise<number> {
    await house.stock(sku, 'DOCK-2', units);
    const answer = await ruben
      .floor({
        kind: 'store',
        itemId: await house.itemId(sku),
        lotId: 0,
        units,
        fromPlaceId: await house.placeId('DOCK-2'),
        toPlaceId: await house.placeId(bin),
        how: 'scanned',
      })
      .expect(200);
    return (answer.body as { activityId: number }).activityId;
  }
  const moveAway = (line: number) => ruben.post(`tape/${line}/undo`);
  const short = (round: string, stop: Stop, units: number) =>
    ines.floor({ kind: 'short', round, stopId: stop.id, units, there: rest(stop) - units });

  /** What a person in front of a round would do until nothing is left of it. Fails where no act is permitted. */
  async function finish(round: string, tote: string): Promise<void> {
    const totePlaceId = await house.placeId(tote);
    for (let turn = 0; turn < 20; turn++) {
      const [next] = (await stops(round)).filter((s) => rest(s) > 0);
      if (!next) break;
      const picked = await ines.floor(pickOf(round, next, rest(next), totePlaceId));
      if (picked.status === 200) continue;
      await short(round, next, rest(next)).expect(200);
    }
    await ines.floor({ kind: 'set-down', round, placeId: await house.placeId('TABLE-1') }).expect(200);
  }

  it('reports what is not there, finds the rest elsewhere, and is set down', async () => {
    const line = await putAway('SMK-LGE', 'A-10-1', 6);
    const order = await house.order([['SMK-LGE', 6]]);
    const round = await house.release(order);
    await house.stock('SMK-LGE', 'B-02-1', 2);
    expect((await stops(round))[0]).toMatchObject({ placeCode: 'A-10-1', units: 6 });
    await moveAway(line).expect(201);
    const refused = await ines.floor(pickOf(round, (await stops(round))[0]!, 1, await house.placeId('T-01'))).expect(409);
    expect((refused.body as { detail: string }).detail).not.toBe('');
    await finish(round, 'T-01');
    // Nothing is held in a bin from which the books had taken it.
    expect(await house.figures('SMK-LGE')).toMatchObject({ onHand: 8, held: 0 });
    expect(await state(order)).toBe('picked');
  });

  it('is let go whole where no bin has anything, and its order waits for goods again', async () => {
    const line = await putAway('SMK-SML', 'A-11-1', 3);
    const order = await house.order([['SMK-SML', 3]]);
    const round = await house.release(order);
    await moveAway(line).expect(201);
    await finish(round, 'T-02');
    expect(await state(order)).toBe('open');
    await putAway('SMK-SML', 'A-11-1', 3);
    await finish(await house.release(order), 'T-02');
    expect(await state(order)).toBe('picked');
  });

  it('is never stuck, whatever races with whatever', async () => {
    const random = seeded(7);
    const pick = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]!;
    const bins = ['A-02-1', 'A-03-1', 'B-03-1'];
    const put: number[] = [];
    for (const bin of bins) put.push(await putAway('BRSH-BEE', bin, 4));
    const orders = [];
    for (let i = 0; i < 4; i++) orders.push(await house.order([['BRSH-BEE', 3]]));
    const rounds: string[] = [];
    for (const order of orders) rounds.push(await house.release(order));
    for (let burst = 0; burst < 12; burst++) {
      await Promise.all(
        Array.from({ length: 5 }, async () => {
          const at = rounds.indexOf(pick(rounds));
          const open = (await stops(rounds[at]!)).filter((s) => rest(s) > 0);
          const stop = pick(open);
          const act = pick(['pick', 'short', 'move', 'set-down'] as const);
          if (act === 'move') await moveAway(pick(put));
          else if (act === 'set-down') await ines.floor({ kind: 'set-down', round: rounds[at]!, placeId: await house.placeId('TABLE-1') });
          else if (!stop) return;
          else if (act === 'pick') await ines.floor(pickOf(rounds[at]!, stop, 1, await house.placeId(`T-${10 + at}`)));
          else await short(rounds[at]!, stop, 1);
        }),
      );
    }
    for (const [i, round] of rounds.entries()) {
      const { state: at } = (await house.source.query<{ state: string }[]>('SELECT state FROM `round` WHERE code = ?', [round]))[0]!;
      if (['waiting', 'picking'].includes(at)) await finish(round, `T-${10 + i}`);
    }
    expect(await Promise.all(orders.map(state))).toEqual(orders.map(() => expect.stringMatching(/^(open|picked)$/) as string));
  });
});
