import { type Caller, House } from './house.js';

interface Row {
  sku: string;
  isStocked: boolean;
  extra: Record<string, string>;
  lacks: string[];
}

describe('many items at once', () => {
  let house: House;
  let maren: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    const before = (await maren.get('items/extra-fields')).body as { version: number; fields: object[] };
    const fields = [...before.fields, { name: 'Origin', kind: 'choice', choices: ['Ulm', 'Ulmen'] }, { name: 'Glaze', kind: 'text', choices: [] }, { name: 'Größe/Höhe', kind: 'number', choices: [] }]; // prettier-ignore
    await maren.put('items/extra-fields', { fields }, { 'if-match': `"${before.version}"` }).expect(204);
    for (const [n, extra] of [{ Origin: 'Ulm', Glaze: 'salt 50%', 'Größe/Höhe': '12' }, { Origin: 'Ulmen', Glaze: 'ash' }, {}].entries()) {
      const packs = [{ name: 'piece', plural: 'pieces', factor: 1, barcodes: n === 2 ? ['KNOWN-2'] : [] }];
      await maren
        .post('items', {
          sku: `POT-${n}`,
          name: `Pot ${n}`,
          className: 'Pots',
          picture: 'box',
          tracking: 'none',
          rotation: 'fifo',
          neverHoldsUp: false,
          extra,
          packs,
        }) // prettier-ignore
        .expect(201);
    }
  });
  afterAll(() => house.close());

  const list = async (query: string, who = maren) => ((await who.get(`items?${query}`).expect(200)).body as { rows: Row[] }).rows;
  const skus = async (query: string) => (await list(query)).map((r) => r.sku);
  const counts = async (query = '') => (await maren.get(`items/counts?${query}`).expect(200)).body as { all: number; short: number };

  it('are narrowed by the company’s own fields, whole or in part, and show them', async () => {
    expect(await skus('own=Origin&ownIs=Ulm')).toEqual(['POT-0']);
    expect(await skus('own=Glaze&ownHas=50%25')).toEqual(['POT-0']);
    expect(await skus('own=Glaze&ownHas=a')).toEqual(['POT-0', 'POT-1']);
    expect((await counts('own=Origin&ownIs=Ulmen')).all).toBe(1);
    expect(await skus(`own=${encodeURIComponent('Größe/Höhe')}&ownIs=12`)).toEqual(['POT-0']);
    expect(await skus(`own=${encodeURIComponent('x" OR 1=1 --')}&ownIs=y&search=pot`)).toHaveLength(3);
    expect((await list('search=POT-1'))[0]?.extra).toEqual({ Origin: 'Ulmen', Glaze: 'ash' });
    const { text } = await maren.get('exports/lists/items.csv?search=POT-&columns=sku,own:Origin').expect(200);
    expect(text.trim().split(/\r?\n/)).toEqual(['SKU,Origin', 'POT-0,Ulm', 'POT-1,Ulmen', 'POT-2,']);
  });

  it('that never had any stock are not said to lack some', async () => {
    expect(await skus('state=short&search=POT-')).toEqual([]);
    expect((await list('search=POT-0'))[0]?.isStocked).toBe(false);
    const before = (await counts()).short;
    await house.stock('SUIT-M', 'B-01-1', 2);
    expect((await counts()).short).toBe(before);
    await house.order([['SUIT-M', 2]]);
    expect(await skus('state=short&search=SUIT-M')).toEqual(['SUIT-M']);
    expect((await counts()).short).toBe(before + 1);
    expect((await list('search=SUIT-M'))[0]?.isStocked).toBe(true);
  });

  it('are to be reordered where no more is free and on order than the point of their site', async () => {
    const point = (value: string) => maren.post('items/changes', { skus: ['SUIT-S'], field: 'reorderPoint', value, siteId: 1 }).expect(200);
    const asked = async () => [await skus('state=reorder&search=SUIT-S'), ((await maren.get('items/counts?search=SUIT-S')).body as { reorder: number }).reorder]; // prettier-ignore
    await point('5');
    expect(await asked()).toEqual([['SUIT-S'], 1]);
    await house.stock('SUIT-S', 'B-02-1', 6);
    expect(await asked()).toEqual([[], 0]);
    await point('6');
    expect(await asked()).toEqual([['SUIT-S'], 1]);
    await point('');
    expect(await asked()).toEqual([[], 0]);
  });

  it('get barcodes where they have none, each its own, and lose them by one undo', async () => {
    const make = (by: Caller, names = ['POT-0', 'pot-1', 'POT-2']) => by.post('items/barcodes', { skus: names, make: 'restricted' });
    await make(await house.as('Joss')).expect(403);
    await make(maren, ['POT-0', 'NOBODY']).expect(404);
    const answers = await Promise.all([make(maren), make(maren)]);
    expect(answers.map((a) => a.status)).toEqual([200, 200]);
    const bodies = answers.map((a) => a.body as { made: number; left: number; activityId: number | null }).sort((a, b) => b.made - a.made);
    expect(bodies).toMatchObject([{ made: 2, left: 1 }, { made: 0, left: 3, activityId: null }]); // prettier-ignore
    const codes = (await Promise.all([0, 1, 2].map(async (n) => (await maren.get(`items/POT-${n}`)).body as { packs: { barcodes: string[] }[] }))).map((i) => i.packs[0]?.barcodes); // prettier-ignore
    expect(codes).toEqual([[expect.stringMatching(/^0?20\d{11}/)], [expect.stringMatching(/^0?20\d{11}/)], ['KNOWN-2']]);
    expect((await list('search=POT-1'))[0]?.lacks).not.toContain('barcode');
    await maren.post(`tape/${bodies[0]?.activityId}/undo`).expect(201);
    expect((await list('search=POT-1'))[0]?.lacks).toContain('barcode');
    expect(((await maren.get('items/POT-2')).body as { packs: { barcodes: string[] }[] }).packs[0]?.barcodes).toEqual(['KNOWN-2']);
  });
});
