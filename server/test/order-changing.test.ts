import { DeskHands, type Stop } from './desk-hands.js';
import { type Caller, closing, type House, keyed, pickOf } from './house.js';

/** Orders changed and cancelled, in every state that an order can be in; the ledger is proved clean at the end. */
describe('the order desk', () => {
  let hands: DeskHands;
  let house: House;
  let desk: Caller;
  let ines: Caller;
  let dilys: Caller;
  beforeAll(async () => {
    hands = await DeskHands.open();
    ({ house, desk, ines, dilys } = hands);
  });
  afterAll(() => hands.close());

  describe('changes orders', () => {
    it('that wait: fewer, more, other goods; and keeps what it was, who changed it and why', async () => {
      const code = await hands.key();
      await hands.change(code, (o) => ({
        lines: [
          { ...o.lines[0], quantity: '5' },
          { sku: 'JAR-227-RD', factor: 1, quantity: '3', price: '0.75' },
        ],
        notePacker: 'No prices in the box',
      }));
      expect((await hands.sheet(code)).lines).toMatchObject([
        { wanted: 5, reserved: 5 },
        { sku: 'JAR-227-RD', wanted: 3, reserved: 3 },
      ]);
      await hands.change(code, (o) => ({ lines: o.lines.slice(1) }));
      expect((await hands.sheet(code)).lines).toMatchObject([{ wanted: 0, reserved: 0 }, { wanted: 3 }]);
      const events = (await desk.get(`orders/${code}/history`).expect(200)).body as { what: string; detail: string; who: string | null }[];
      expect(events.map((e) => `${e.what}: ${e.detail}`)).toEqual(
        expect.arrayContaining([
          'Line 1, units: 2 → 5. the customer rang',
          'Note to the packer: nothing → No prices in the box. the customer rang',
        ]),
      );
      expect(events.every((e) => e.who?.includes('Maren'))).toBe(true);
    });

    it('of two people at once, one is told and nothing of the other is lost', async () => {
      const code = await hands.key();
      const { version } = await hands.sheet(code);
      await hands.change(code, hands.quantity(1, '4'));
      await desk.put(`orders/${code}`, { ...keyed({ quote: undefined, ref: undefined }), why: '' }, hands.at(version)).expect(412);
      expect((await hands.sheet(code)).lines).toMatchObject([{ wanted: 4 }]);
    });

    it('that are sent to picking: the stop asks for fewer, and more follows on a round of its own', async () => {
      const code = await hands.key({ lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '6', price: '1' }] });
      const round = await house.release(code);
      await hands.change(code, hands.quantity(1, '4'));
      expect(await hands.stopsOf(round)).toMatchObject([{ units: 4 }]);
      await hands.change(code, (o) => ({ lines: [...o.lines, { sku: 'JAR-227-RD', factor: 1, quantity: '2', price: '1' }] }));
      const order = await hands.sheet(code);
      expect(order).toMatchObject({ state: 'released', canFollow: false });
      await hands.pick(round);
      await hands.setDown(round);
      const [{ round: second }] = (await house.source.query<{ round: string }[]>(
        `SELECT r.code AS round FROM \`round\` r JOIN round_order x ON x.round_id = r.id JOIN sales_order o ON o.id = x.order_id WHERE o.code = ? ORDER BY r.id DESC`,
        [code],
      )) as [{ round: string }];
      expect(second).not.toBe(round);
      await hands.pick(second);
      await hands.setDown(second);
      expect((await hands.sheet(code)).state).toBe('picked');
    });

    it('that are half picked: what lies in the tote and is wanted no longer is asked to be put away', async () => {
      const code = await hands.key({ lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '6', price: '1' }] });
      const round = await house.release(code);
      const into = await hands.pick(round, 4);
      const { body } = await hands.change(code, hands.quantity(1, '3'));
      expect((body as { floor: string }).floor).toBe(`1 to put away from ${into}`);
      const task = await ines.task<{ stops: Stop[]; spare: { code: string; units: number }[] }>('pick', round);
      expect(task.spare).toMatchObject([{ code: into, units: 1 }]);
      expect(task.stops.every((s) => s.units === s.picked)).toBe(true);
      expect(await hands.putBack(into)).toBe(1);
      await hands.setDown(round);
      expect(await hands.sheet(code)).toMatchObject({ state: 'picked', lines: [{ wanted: 3, picked: 3 }] });
      await house.packAll(code);
      await dilys.floor(closing(code, { weightG: 180 + 245 * 3 })).expect(200);
      expect(await hands.isFree(into)).toBe(true);
    });

    it('that are being packed: the parcel is not closed before it is out again, and the note is read anew', async () => {
      const code = await hands.key({ lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '3', price: '1' }], notePacker: 'Gift' });
      await hands.picked(code);
      await dilys.floor({ kind: 'note-seen', order: code }).expect(200);
      await house.packAll(code);
      await hands.change(code, (o) => ({ ...hands.quantity(1, '2')(o), notePacker: 'Gift, wrapped' }));
      const { body } = await dilys.floor(closing(code)).expect(409);
      expect(JSON.stringify(body)).toMatch(/note|Take 1 of/i);
      await dilys.floor({ kind: 'note-seen', order: code }).expect(200);
      const told = await dilys.floor(closing(code)).expect(409);
      expect(JSON.stringify(told.body)).toContain('Take 1 of');
      expect(await hands.putBack(`${code}-1`)).toBe(1);
      await dilys.floor(closing(code)).expect(200);
      expect((await hands.sheet(code)).state).toBe('packed');
    });

    it('but not to fewer than a closed parcel holds', async () => {
      const code = await hands.key();
      await hands.picked(code);
      await (await house.packAll(code)).floor(closing(code)).expect(200);
      const { body } = await hands.change(code, hands.quantity(1, '1'), 400);
      expect(Object.keys((body as { fields: object }).fields)).toContain('lines.0.quantity');
    });

    it('and never to a line of other goods, or of nobody’s', async () => {
      const code = await hands.key();
      const other = await hands.change(code, (o) => ({ lines: [{ ...o.lines[0], sku: 'JAR-227-RD' }] }), 400);
      expect(Object.keys((other.body as { fields: object }).fields)).toContain('lines.0.sku');
      await hands.change(code, (o) => ({ lines: [{ ...o.lines[0], line: 9 }] }), 400);
    });
  });

  describe('cancels orders', () => {
    it.each(['quote', 'open', 'held', 'released', 'picking', 'picked', 'packing', 'packed', 'labelled'])(
      'that are %s, and all of it is free again',
      async (state) => {
        const before = await house.figures('JAR-454-RD');
        const code = await hands.key({ quote: state === 'quote', postcode: state === 'held' ? '' : 'NW8 2RE' });
        const going = ['picking', 'picked', 'packing', 'packed', 'labelled'];
        let into = '';
        if (state === 'released') await house.release(code);
        if (state === 'picking') into = await hands.pick(await house.release(code), 1);
        if (going.indexOf(state) > 0) into = await hands.picked(code);
        if (going.indexOf(state) > 1) await house.packAll(code);
        if (going.indexOf(state) > 2) await dilys.floor(closing(code)).expect(200);
        if (state === 'labelled') await house.deliver();
        const list = (await desk.get(`orders/${code}/cancelling`).expect(200)).body as { can: boolean; labels: string[] };
        expect(list).toMatchObject({ can: true, labels: state === 'labelled' ? [`${code}-1`] : [] });
        await hands.cancel(code);
        expect(await hands.sheet(code)).toMatchObject({ state: 'cancelled', cancelledWhy: 'no longer wanted', lines: [{ reserved: 0 }] });
        expect(await house.figures('JAR-454-RD')).toMatchObject({ onHand: before.onHand, reserved: before.reserved });
        if (state === 'picking') {
          const [{ round }] = (await house.source.query<{ round: string }[]>(
            'SELECT r.code AS round FROM `round` r JOIN round_order x ON x.round_id = r.id JOIN sales_order o ON o.id = x.order_id WHERE o.code = ?',
            [code],
          )) as [{ round: string }];
          await hands.setDown(round);
        }
        const inParcel = going.indexOf(state) > 1;
        if (into !== '') expect(await hands.putBack(inParcel ? `${code}-1` : into)).toBe(state === 'picking' ? 1 : 2);
        if (into !== '') expect(await hands.isFree(into)).toBe(true);
        if (inParcel) expect((await hands.sheet(code)).parcels).toMatchObject([{ state: 'void' }]);
        await hands.cancel(code, 409);
      },
    );

    it('that are packed in part, where no parcel was closed yet', async () => {
      const code = await hands.key({
        lines: [
          { sku: 'JAR-454-RD', factor: 1, quantity: '2', price: '1' },
          { sku: 'SUIT-XL', factor: 1, quantity: '1', price: '62' },
        ],
      });
      await house.stock('SUIT-XL', 'A-03-1', 1);
      await hands.picked(code);
      await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: 1, units: 2, how: 'scanned' }).expect(200);
      await dilys.floor(closing(code)).expect(409);
      await hands.cancel(code);
      expect((await hands.sheet(code)).state).toBe('cancelled');
    });

    it('while somebody picks them, whichever comes first', async () => {
      for (let i = 0; i < 8; i++) {
        const code = await hands.key({ lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '4', price: '1' }] });
        const round = await house.release(code);
        const [stop] = await hands.stopsOf(round);
        const empty = await hands.freeTote();
        const into = await house.placeId(empty);
        const { version } = await hands.sheet(code);
        await Promise.all([
          ...[1, 1, 1].map((units) => ines.floor(pickOf(round, stop!, units, into))),
          desk.post(`orders/${code}/cancel`, { why: 'race', tell: false }, hands.at(version)),
        ]);
        let order = await hands.sheet(code);
        if (order.state !== 'cancelled') {
          await hands.cancel(code);
          order = await hands.sheet(code);
        }
        expect(order).toMatchObject({ state: 'cancelled', lines: [{ reserved: 0 }] });
        await ines.floor(pickOf(round, stop!, 1, into)).expect(({ status }) => expect(status).toBeGreaterThanOrEqual(400));
        const { state } = (await house.source.query<{ state: string }[]>('SELECT state FROM `round` WHERE code = ?', [round]))[0]!;
        if (state === 'picking') await hands.setDown(round);
        await hands.putBack(empty);
        expect(await hands.isFree(empty)).toBe(true);
      }
    });
  });
});
