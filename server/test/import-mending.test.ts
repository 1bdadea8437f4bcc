import type { ImportDto } from '../src/exchange/exchange.dto.js';
import { type Caller, House } from './house.js';
import { checked, settled, upload } from './importing.js';

/** Files that are not as the house writes them: put right on the page, without the file. */
describe('mending a file on the page', () => {
  let house: House;
  let maren: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
  });
  afterAll(() => house.close());

  const mend = (id: string, ...changes: object[]) => maren.post(`imports/${id}/mend`, { changes });
  const apply = async (id: string, goodRowsOnly = false) => {
    await maren.post(`imports/${id}/apply`, { goodRowsOnly }).expect(204);
    return settled(house, maren, id);
  };
  const item = async (sku: string) => (await maren.get(`items/${sku}`).expect(200)).body as { name: string; tracking: string; packs: { weightG: number; lengthMm: number }[] }; // prettier-ignore
  const german = (prefix: string, rows: string[]) =>
    ['Artikelnummer;Bezeichnung;Chargenpflicht;Gewicht (kg);Länge cm', ...rows.map((r, i) => `${prefix}-${i + 1};${r}`)].join('\n');

  it('reads German heads and kilograms; “ja” is told once what it means, in all rows and in the next file', async () => {
    const run = await checked(
      house,
      maren,
      'artikel.csv',
      german('TEA', ['Assam;ja;0,25;12', 'Darjeeling;nein;1,5 kg;30', 'Kanne;ja;0.9;22,5']),
    );
    expect(run.columns.map((c) => [c.field, c.unit])).toEqual([['sku', null], ['name', null], ['tracking', null], ['weightG', 'kg'], ['lengthMm', 'cm']]); // prettier-ignore
    expect(run.groups.map((g) => [g.field, g.value, g.rows])).toEqual([['tracking', 'ja', 2], ['tracking', 'nein', 1]]); // prettier-ignore
    expect(run.fields.find((f) => f.key === 'tracking')?.choices).toContain('lot-expiry');
    await mend(run.id, { field: 'tracking', value: 'ja', becomes: 'lot-expiry' }, { field: 'tracking', value: 'NEIN ', becomes: 'none' }).expect(204); // prettier-ignore
    const good = await settled(house, maren, run.id);
    expect(good).toMatchObject({ state: 'checked', faulty: 0, groups: [] });
    expect(good.words.map((w) => [w.value, w.becomes])).toEqual([['ja', 'lot-expiry'], ['nein', 'none']]); // prettier-ignore
    await apply(run.id);
    expect(await item('TEA-1')).toMatchObject({ name: 'Assam', tracking: 'lot-expiry', packs: [{ weightG: 250, lengthMm: 120 }] });
    expect(await item('TEA-2')).toMatchObject({ tracking: 'none', packs: [{ weightG: 1500, lengthMm: 300 }] });
    const next = await checked(house, maren, 'artikel2.csv', german('CUP', ['Tasse;nein;0,2;8']));
    expect(next).toMatchObject({ faulty: 0 });
    // What was said can be taken back.
    await mend(next.id, { field: 'tracking', value: 'nein', becomes: null }).expect(204);
    expect((await settled(house, maren, next.id)).groups).toMatchObject([{ field: 'tracking', value: 'nein' }]);
  });

  it('takes another unit where somebody says so, and no unit that is none', async () => {
    const text = 'SKU,Name,Weight\nPOT-1,Pot,12\nPOT-2,Lid,3.5\n';
    const { id } = (await upload(maren, 'pots.csv', text).expect(201)).body as { id: string };
    const columns = (units: string[]) => maren.put(`imports/${id}/columns`, { kind: 'items', fields: ['sku', 'name', 'weightG'], units });
    expect((await columns(['', '', 'cm']).expect(400)).body).toMatchObject({ fields: { units: expect.stringContaining('one of g, kg') } });
    await columns(['', '', 'oz']).expect(204);
    expect(await settled(house, maren, id)).toMatchObject({ faulty: 0 });
    await apply(id);
    expect(await item('POT-1')).toMatchObject({ packs: [{ weightG: 340 }] });
    expect(await item('POT-2')).toMatchObject({ packs: [{ weightG: 99 }] });
  });

  it('mends one row, or all rows with one fault; what is filled in for empty cells is said of this file alone', async () => {
    const rows = ['A1,,5', 'A2,,6', 'A2,Second,7', 'A4,Fourth,heavy', 'A5,Fifth,much'];
    const run = await checked(house, maren, 'rows.csv', `SKU,Name,Weight\n${rows.join('\n')}\n`);
    expect(run.faulty).toBe(4);
    const heavy = run.groups.find((g) => g.value === 'heavy')!;
    await mend(run.id, { field: 'weightG', reason: heavy.reason, becomes: '' }, { field: 'name', value: '', becomes: 'No name yet' }, { field: 'sku', row: 4, becomes: 'A3' }).expect(204); // prettier-ignore
    const after = await settled(house, maren, run.id);
    expect(after).toMatchObject({ faulty: 0 });
    await apply(run.id);
    expect(await item('A1')).toMatchObject({ name: 'No name yet' });
    expect(await item('A3')).toMatchObject({ name: 'Second' });
    const again = await checked(house, maren, 'rows2.csv', 'SKU,Name,Weight\nA9,,5\n');
    expect(again.groups).toMatchObject([{ field: 'name', value: '' }]);
  });

  it('takes the rest of a file up again, mended, once; the rows keep the numbers that they have in the file', async () => {
    const run = await checked(house, maren, 'partly.csv', 'SKU,Name,Weight\nB1,One,5\nB2,Two,few\nB3,Three,7\n');
    expect((await maren.post(`imports/${run.id}/rest`).expect(409)).body).toMatchObject({ detail: 'Take the good rows in first' });
    await apply(run.id, true);
    const { id } = (await maren.post(`imports/${run.id}/rest`).expect(201)).body as { id: string };
    const rest = await settled(house, maren, id);
    expect(rest).toMatchObject({
      state: 'checked',
      total: 1,
      faulty: 1,
      fileName: 'partly.csv, the rest',
      groups: [{ row: 3, value: 'few' }],
    });
    expect(((await maren.post(`imports/${run.id}/rest`).expect(201)).body as ImportDto).id).toBe(id);
    await mend(id, { field: 'weightG', value: 'few', becomes: '120 g' }).expect(204);
    expect(await settled(house, maren, id)).toMatchObject({ faulty: 0 });
    await apply(id);
    expect(await item('B2')).toMatchObject({ packs: [{ weightG: 120 }] });
  });

  it('is done by whoever began it, on what is there, and not after it was taken in', async () => {
    const run = await checked(house, maren, 'mine.csv', 'SKU,Name,Weight\nC1,One,odd\n');
    const piet = await house.as('Piet');
    expect((await piet.post(`imports/${run.id}/mend`, { changes: [{ field: 'weightG', value: 'odd', becomes: '1' }] })).status).toBe(404);
    for (const change of [
      { field: 'nothing', value: 'odd', becomes: '1' },
      { field: 'weightG', row: 99, becomes: '1' },
      { field: '__proto__', value: 'odd', becomes: '1' },
      { field: 'weightG', reason: 'no such', becomes: '1' },
    ])
      // prettier-ignore
      expect((await mend(run.id, change)).status).toBe(400);
    for (const bad of [{}, { changes: [] }, { changes: 'all' }, { changes: [{ field: 'weightG' }] }]) expect((await maren.post(`imports/${run.id}/mend`, bad)).status).toBe(400); // prettier-ignore
    await mend(run.id, { field: 'weightG', value: 'odd', becomes: '5' }).expect(204);
    await settled(house, maren, run.id);
    await apply(run.id);
    expect((await mend(run.id, { field: 'weightG', value: 'odd', becomes: '6' })).status).toBe(409);
    expect((await maren.post(`imports/${run.id}/rest`).expect(409)).body).toMatchObject({ detail: 'No row of it was left out' });
  });

  it('holds SKUs apart that differ in marks alone, in the file and from those of the house, before anything is written', async () => {
    const run = await checked(house, maren, 'marks.csv', 'SKU,Name\nTÜR 1/2,Door\nTUR 1/2,Tower\nTÜR  1/4,Flap\n');
    expect(run.groups).toMatchObject([{ value: 'TUR 1/2', reason: expect.stringContaining('in marks alone') }]);
    await apply(run.id, true);
    const again = await checked(house, maren, 'marks2.csv', 'SKU,Name\nTUR 1/4,Flap\ntür 1/2,Door\n');
    expect(again.groups).toMatchObject([{ value: 'TUR 1/4', reason: expect.stringContaining('There is an item TÜR 1/4') }]);
    expect(await item(encodeURIComponent('TÜR 1/4'))).toMatchObject({ name: 'Flap' });
  });
});
