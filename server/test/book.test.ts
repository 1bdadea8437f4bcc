import { type Caller, House } from './house.js';

interface Part {
  version: number;
  next: string | null;
  items: { id: number; sku: string; name: string; home: string | null; codes: { code: string }[] }[];
  places: { id: number; code: string; rule: string }[];
  goneItems: number[];
  gonePlaces: number[];
}

describe('the codes of a site, by version', () => {
  let house: House;
  let maren: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
  });
  afterAll(() => house.close());

  const part = async (since: number, more = '') => (await maren.get(`floor/book?site=1&since=${since}${more}`).expect(200)).body as Part;

  it('come whole at first, and nothing after that', async () => {
    const all = await part(0);
    const [count] = await house.source.query<{ items: string; places: string }[]>(
      `SELECT (SELECT COUNT(*) FROM item) AS items, (SELECT COUNT(*) FROM place WHERE kind NOT IN ('site','zone','parcel') AND (site_id = 1 OR (site_id IS NOT NULL AND kind IN ('dock','tote')))) AS places`,
    );
    expect([all.items.length, all.next === null ? all.places.length : 0]).toEqual([Number(count!.items), Number(count!.places)]);
    expect(all.items.find((i) => i.sku === 'JAR-454-RD')?.codes.map((c) => c.code)).toContain('09521077000010');
    expect(await part(all.version)).toEqual({ version: all.version, next: null, items: [], places: [], goneItems: [], gonePlaces: [] });
  });

  it('come in parts that belong together', async () => {
    const first = await part(0, '&after=item-0');
    const rest = await part(0, `&until=${first.version}&after=place-0`);
    expect(rest.items).toEqual([]);
    expect(rest.places.length).toBeGreaterThan(100);
    expect(rest.version).toBe(first.version);
  });

  const changes: [string, () => Promise<unknown>, (p: Part) => unknown, unknown][] = [
    [
      'a name',
      () => house.source.query(`UPDATE item SET name = 'Jar, new' WHERE sku = 'JAR-454-RD'`),
      (p) => p.items.map((i) => i.name),
      ['Jar, new'],
    ],
    [
      'a barcode that is tied',
      () => maren.post('items/JAR-454-RD/barcodes', { factor: 1, code: 'NEW-CODE-1' }).expect(200),
      (p) => p.items.map((i) => i.codes.some((c) => c.code === 'NEW-CODE-1')),
      [true],
    ],
    [
      'a barcode that is taken off',
      () => house.source.query(`DELETE FROM barcode WHERE code = 'NEW-CODE-1'`),
      (p) => p.items.map((i) => i.codes.some((c) => c.code === 'NEW-CODE-1')),
      [false],
    ],
    [
      'a home',
      async () =>
        house.source.query<unknown>(`UPDATE item_site SET home_place_id = ? WHERE site_id = 1 AND item_id = ?`, [
          await house.placeId('C-02-1'),
          await house.itemId('JAR-454-RD'),
        ]),
      (p) => p.items.map((i) => i.home),
      ['C-02-1'],
    ],
    [
      'a place that is blocked',
      () => house.source.query(`UPDATE place SET blocked = 1 WHERE code = 'C-03-1'`),
      (p) => [p.places.length, p.gonePlaces.length],
      [0, 1],
    ],
    [
      'a place that is open again',
      () => house.source.query(`UPDATE place SET blocked = 0 WHERE code = 'C-03-1'`),
      (p) => p.places.map((x) => x.code),
      ['C-03-1'],
    ],
    [
      'a new place',
      () => maren.post('places', { code: 'Z-01-1', kind: 'pick-face', siteId: 1, pickable: true }).expect(201),
      (p) => p.places.map((x) => x.code),
      ['Z-01-1'],
    ],
  ];
  it.each(changes)('tell of %s, and of nothing else', async (_, change, seen, expected) => {
    const { version } = await part(0);
    await change();
    const told = await part(version);
    expect(seen(told)).toEqual(expected);
    expect(told.items.length + told.places.length + told.goneItems.length + told.gonePlaces.length).toBe(1);
  });

  it('tell of all bins of a zone whose rule changes', async () => {
    const [zone] = await house.source.query<{ id: number; bins: string }[]>(
      `SELECT z.id, COUNT(p.id) AS bins FROM place z JOIN place p ON p.parent_id = z.id WHERE z.kind = 'zone' AND z.site_id = 1 GROUP BY z.id ORDER BY bins DESC LIMIT 1`,
    );
    const { version } = await part(0);
    await house.source.query(`UPDATE place SET rule = 'cold' WHERE id = ?`, [zone!.id]);
    const told = await part(version);
    expect(told.places).toHaveLength(Number(zone!.bins));
    expect(told.places.every((p) => p.rule === 'cold')).toBe(true);
  });

  it('are silent about what phones do not read codes by', async () => {
    const { version } = await part(0);
    await house.source.query(`UPDATE item SET cost = 9.99, version = version + 1`);
    await house.stock('JAR-454-RD', 'A-01-1', 10);
    await house.pickAll(await house.release(await house.order([['JAR-454-RD', 2]])), 'T-30');
    expect(await part(version)).toMatchObject({ items: [], goneItems: [], gonePlaces: [] });
  });

  it('never skip a change that was begun before another and committed after it', async () => {
    const { version } = await part(0);
    const slow = house.source.createQueryRunner();
    await slow.startTransaction();
    await slow.query(`UPDATE item SET name = 'Slow' WHERE sku = 'SMK-LGE'`);
    await house.source.query(`UPDATE item SET name = 'Quick' WHERE sku = 'SMK-SML'`);
    const first = await part(version);
    expect(first.items.map((i) => i.name)).toEqual(['Quick']);
    await slow.commitTransaction();
    await slow.release();
    expect((await part(first.version)).items.map((i) => i.name)).toEqual(['Slow']);
  });
});
