import sharp from 'sharp';
import { type Caller, House } from './house.js';

let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
});
afterAll(() => house.close());

const said = (answer: { body: unknown }) => (answer.body as { detail: string }).detail;
interface Row {
  sku: string;
  name: string;
  available: number;
  lacks: string[];
  tags: string[];
  cost?: string | null;
}
const list = async (query: string, who = maren) => (await who.get(`items?${query}`).expect(200)).body as { rows: Row[]; total: number };
const skus = async (query: string) => (await list(query)).rows.map((r) => r.sku);
const base = { name: 'piece', plural: 'pieces', factor: 1, barcodes: [] as string[] };
const item = (sku: string, more: object = {}) => ({
  sku,
  name: `Item ${sku}`,
  className: 'Trial',
  picture: 'box',
  tracking: 'none',
  rotation: 'fifo',
  neverHoldsUp: false,
  packs: [base],
  ...more,
});
const version = async (sku: string) => ((await maren.get(`items/${sku}`).expect(200)).body as { version: number }).version;
const change = async (sku: string, field: string, value: string, siteId?: number) =>
  maren.patch(`items/${sku}`, { field, value, ...(siteId ? { siteId } : {}) }, { 'if-match': `"${await version(sku)}"` });

describe('the list', () => {
  it('comes in windows that join without gap or overlap, in every order', async () => {
    for (const sort of ['', 'sku', '-sku', 'name', '-available', 'onHand', 'cost']) {
      const all = await skus(`limit=500&sort=${sort}`);
      const parts = [
        ...(await skus(`limit=20&sort=${sort}`)),
        ...(await skus(`from=20&limit=20&sort=${sort}`)),
        ...(await skus(`from=40&limit=500&sort=${sort}`)),
      ];
      expect([sort, parts]).toEqual([sort, all]);
      expect(new Set(all).size).toBe((await list('limit=1')).total);
    }
  });

  it('is narrowed by class, tag, supplier, site, words and state, and counts what each state shows', async () => {
    expect(await skus('className=Books')).toEqual(['BOK-LOG', 'BOK-KIDS', 'BOK-MEAD', 'BOK-QUEN', 'BOK-SWRM', 'BOK-YEAR', 'BOK-WAX']);
    expect(new Set(await skus('tag=bulky'))).toEqual(new Set(['HIV-BRD', 'HIV-SUP', 'EXT-4T', 'TNK-50']));
    expect((await skus('supplier=QUILLON')).every((s) => /^(JAR|LID|BTL)/.test(s))).toBe(true);
    expect(await skus('search=round jar')).toEqual(['JAR-227-RD', 'JAR-454-RD', 'JAR-720-RD']);
    expect(new Set(await skus('state=no-barcode'))).toEqual(new Set(['STR-ROLL', 'CND-MLD-BE']));
    await house.stock('JAR-454-RD', 'A-01-1', 5);
    expect(await skus('state=short&search=jar-454')).toEqual([]);
    await house.order([['SMK-LGE', 3]]);
    expect(await skus('state=backordered')).toEqual(['SMK-LGE']);
    const counts = (await maren.get('items/counts')).body as Record<string, number>;
    const { total } = await list('limit=1');
    expect(counts).toMatchObject({ all: total, short: 0, backordered: 1, noBarcode: 2 });
    expect((await list('state=incomplete&limit=500')).total).toBe(counts['incomplete']);
    expect((await list('site=3')).total).toBe(0);
  });

  it('takes wildcards and strange filters as they are', async () => {
    expect((await list('search=%25')).total).toBe(0);
    expect((await list('search=_____')).total).toBe(0);
    expect((await list('state=nonsense&sort=nonsense&from=-4&limit=x')).rows.length).toBeGreaterThan(10);
  });

  it('is not sorted by costs for those who may not see them', async () => {
    const blind = await house.as('Orla');
    expect((await list('sort=-cost&limit=500', blind)).rows.map((r) => r.sku)).toEqual(await skus('limit=500'));
  });
});

describe('changing cells in the list', () => {
  it('changes one field of one item, from the version that was seen, and takes it back', async () => {
    const seen = await version('GLV-M');
    const answer = await maren.patch('items/GLV-M', { field: 'name', value: 'Gloves for hands' }, { 'if-match': `"${seen}"` }).expect(200);
    await maren.patch('items/GLV-M', { field: 'name', value: 'Other' }, { 'if-match': `"${seen}"` }).expect(412);
    await maren.post(`tape/${(answer.body as { activityId: number }).activityId}/undo`).expect(201);
    expect((await maren.get('items/GLV-M')).body).toMatchObject({ name: 'Gloves, leather, M' });
  });

  it.each([
    ['name', ''],
    ['cost', 'dear'],
    ['cost', '-1'],
    ['storage', 'attic'],
    ['neverHoldsUp', 'perhaps'],
    ['home', 'Z-99-9'],
    ['reorderPoint', '-1'],
    ['addTag', ''],
  ])('refuses %s "%s"', async (field, value) => {
    expect((await change('GLV-M', field, value, 1)).status).toBe(400);
  });

  it('changes many at once and takes all of it back as one act', async () => {
    const some = ['SUIT-S', 'SUIT-M', 'SUIT-L'];
    const done = (await maren.post('items/changes', { skus: some, field: 'reorderPoint', value: '12', siteId: 1 }).expect(200)).body as {
      changed: number;
      activityId: number;
    };
    expect(done.changed).toBe(3);
    const at = async (sku: string) =>
      ((await maren.get(`items/${sku}`)).body as { sites: { siteId: number; reorderPoint: number | null }[] }).sites.find(
        (s) => s.siteId === 1,
      )!.reorderPoint;
    expect(await Promise.all(some.map(at))).toEqual([12, 12, 12]);
    await maren.post(`tape/${done.activityId}/undo`).expect(201);
    expect(await Promise.all(some.map(at))).toEqual([null, null, 6]);
    await maren.post('items/changes', { skus: ['SUIT-S', 'NO-SUCH'], field: 'className', value: 'X' }).expect(404);
    expect((await maren.get('items/SUIT-S')).body).toMatchObject({ className: 'Clothing' });
  });

  it('puts tags on and takes them off, and the undo touches only what was changed', async () => {
    const done = (await maren.post('items/changes', { skus: ['HIV-BRD', 'HIV-FLR'], field: 'addTag', value: 'Bulky' }).expect(200))
      .body as { changed: number; activityId: number };
    expect(done.changed).toBe(1);
    await maren.post(`tape/${done.activityId}/undo`).expect(201);
    expect(new Set(await skus('tag=bulky'))).toContain('HIV-BRD');
    expect(new Set(await skus('tag=bulky'))).not.toContain('HIV-FLR');
  });

  it('keeps costs to those who may see them, whoever undoes', async () => {
    await house.source.query(`UPDATE person SET duties = '["owner"]', sees_costs = 0 WHERE name = 'Piet Sallow'`);
    const blind = await house.as('Piet');
    await blind.post('items/changes', { skus: ['GLV-S'], field: 'cost', value: '1' }).expect(403);
    const done = (await (await change('GLV-S', 'cost', '77.123')).body) as { activityId: number };
    await blind.post(`tape/${done.activityId}/undo`).expect(403);
    expect(JSON.stringify((await blind.get('tape?limit=50')).body)).not.toContain('77.123');
  });
});

describe('kits and assemblies', () => {
  it('can be made as often as their scarcest part allows', async () => {
    await maren
      .post(
        'items',
        item('KIT-T', {
          kind: 'kit',
          parts: [
            { sku: 'BRSH-BEE', units: 2 },
            { sku: 'MRK-PEN', units: 1 },
          ],
        }),
      )
      .expect(201);
    await house.stock('BRSH-BEE', 'D-01-1', 9);
    await house.stock('MRK-PEN', 'D-02-1', 20);
    expect((await maren.get('items/KIT-T')).body).toMatchObject({
      buildable: 4,
      parts: [{ sku: 'BRSH-BEE', available: 9 }, { sku: 'MRK-PEN' }],
    });
    expect((await maren.get('items/MRK-PEN')).body).toMatchObject({ usedIn: ['KIT-T'], buildable: null });
  });

  it.each([
    ['a part that is not known', 'kit', [{ sku: 'NOPE', units: 1 }], 'There is no item NOPE'],
    [
      'a part twice',
      'kit',
      [
        { sku: 'MRK-PEN', units: 1 },
        { sku: 'mrk-pen', units: 2 },
      ],
      'twice',
    ],
    ['no parts', 'assembly', [], 'at least one part'],
    ['parts of a single item', 'single', [{ sku: 'MRK-PEN', units: 1 }], 'Only kits and assemblies'],
  ])('are refused with %s', async (_, kind, parts, says) => {
    expect(said(await maren.post('items', item('KIT-BAD', { kind, parts })).expect(400))).toContain(says);
    await maren.get('items/KIT-BAD').expect(404);
  });

  it('never hold themselves, however deep', async () => {
    await maren.post('items', item('RING-1', { kind: 'kit', parts: [{ sku: 'MRK-PEN', units: 1 }] })).expect(201);
    await maren.post('items', item('RING-2', { kind: 'kit', parts: [{ sku: 'RING-1', units: 1 }] })).expect(201);
    await maren.post('items', item('RING-3', { kind: 'kit', parts: [{ sku: 'RING-2', units: 1 }] })).expect(201);
    const answer = await maren
      .put('items/RING-1', item('RING-1', { kind: 'kit', parts: [{ sku: 'RING-3', units: 1 }] }), { 'if-match': '"1"' })
      .expect(400);
    expect(said(answer)).toContain('RING-1 holds RING-3 holds RING-2 holds RING-1');
  });
});

describe('barcodes', () => {
  it('are made in-house for goods without one, each another, and complete the item', async () => {
    const make = async (kind: string) =>
      ((await maren.post('items/STR-ROLL/barcodes', { factor: 1, make: kind }).expect(200)).body as { code: string }).code;
    const [a, b] = [await make('restricted'), await make('restricted')];
    expect(a).toMatch(/^020\d{11}$/);
    expect(b).not.toBe(a);
    expect(await make('code-128')).toMatch(/^IH-\d{6}$/);
    expect((await maren.get('items/STR-ROLL')).body).toMatchObject({ lacks: [] });
    expect((await maren.get(`find?q=${a}`)).body).toMatchObject({ opens: '/shelves/items/STR-ROLL' });
  });

  it('are tied on the floor by whoever receives, to one thing only', async () => {
    const ruben = await house.as('Ruben');
    await ruben.post('items/CND-MLD-BE/barcodes', { factor: 1, code: 'MOULD-7' }).expect(200);
    expect(said(await ruben.post('items/BRSH-BEE/barcodes', { factor: 1, code: 'mould-7' }).expect(400))).toContain('CND-MLD-BE already');
    await ruben.post('items/BRSH-BEE/barcodes', { factor: 1, code: '9521077000011' }).expect(400);
    await ruben.post('items/BRSH-BEE/barcodes', { factor: 7, code: 'Z' }).expect(400);
    await ruben.post('items/BRSH-BEE/barcodes', { factor: 1, code: 'A-01-1' }).expect(400);
    await ruben.post('items/BRSH-BEE/barcodes', { factor: 1 }).expect(400);
    await (await house.as('Ines')).post('items/BRSH-BEE/barcodes', { factor: 1, code: 'Q' }).expect(403);
  });
});

describe('pictures', () => {
  const square = (px: number) => sharp({ create: { width: px, height: px, channels: 3, background: '#c96' } });

  it('are brought to a size, with a thumbnail, and served only as pictures', async () => {
    await maren.file('put', 'items/JAR-042-MI/picture', await square(2400).jpeg().toBuffer()).expect(204);
    const mark = ((await maren.get('items/JAR-042-MI')).body as { pictureMark: string }).pictureMark;
    expect(mark).toMatch(/^[0-9a-f]{12}$/);
    const large = await maren.bytes('items/JAR-042-MI/picture').expect(200);
    expect(large.headers['content-type']).toBe('image/webp');
    expect((await sharp(large.body as Buffer).metadata()).width).toBe(1200);
    expect((await sharp((await maren.bytes('items/JAR-042-MI/picture?size=thumb')).body as Buffer).metadata()).width).toBe(160);
    await maren.delete('items/JAR-042-MI/picture').expect(204);
    await maren.get('items/JAR-042-MI/picture').expect(404);
  });

  it.each([
    ['no picture', Buffer.from('not a picture at all')],
    [
      'a drawing with a script',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><script>alert(1)</script></svg>'),
    ],
    ['nothing', Buffer.alloc(0)],
  ])('are refused when the file is %s', async (_, bytes) => {
    expect((await maren.file('put', 'items/JAR-042-MI/picture', bytes).expect(400)).body).toMatchObject({
      fields: { picture: expect.stringContaining('JPEG') },
    });
  });

  it('are refused beyond 8 MB', async () => {
    await maren.file('put', 'items/JAR-042-MI/picture', Buffer.alloc(9 * 1024 * 1024)).expect(413);
  });
});

describe('the company’s own fields', () => {
  it('are checked by their kind, and stay while items have values in them', async () => {
    const put = (extra: object) =>
      maren.put(
        'items/BOK-WAX',
        { ...item('BOK-WAX'), packs: [base, { name: 'box', plural: 'boxes', factor: 16, barcodes: [] }], extra },
        { 'if-match': '"1"' },
      );
    expect(said(await put({ 'Guarantee in months': 'long' }).expect(400))).toContain('is a number');
    expect(said(await put({ 'Country of origin': 'Atlantis' }).expect(400))).toContain('is one of');
    expect(said(await put({ Colour: 'red' }).expect(400))).toContain('no field called Colour');
    await put({ 'Country of origin': 'lithuania', 'Guarantee in months': ' 6 ' }).expect(200);
    expect((await maren.get('items/BOK-WAX')).body).toMatchObject({
      extra: { 'Country of origin': 'Lithuania', 'Guarantee in months': '6' },
    });
    const { version } = (await maren.get('items/extra-fields')).body as { version: number };
    expect(said(await maren.put('items/extra-fields', { fields: [] }, { 'if-match': `"${version}"` }).expect(409))).toContain(
      'Items have a value',
    );
  });
});

describe('serial numbers', () => {
  it('stand for one piece each, wherever it goes', async () => {
    await house.stock('SCL-B2', 'C-01-1', 1, { code: 'SC-1', expires: '2030-01-01' });
    await expect(house.stock('SCL-B2', 'C-02-1', 1, { code: 'SC-2', expires: '2030-01-01' })).resolves.toBeUndefined();
    const lot = await house.source.query<{ id: number }[]>(`SELECT id FROM lot WHERE code = 'SC-1'`);
    const again = async () => {
      const { actAs } = await import('../src/demo/morning.js');
      const { LedgerService } = await import('../src/stock/ledger.service.js');
      const { inTransaction } = await import('../src/platform/database/tx.js');
      const ledger = house.app.get(LedgerService);
      const act = await actAs(house.source, 'Maren');
      await inTransaction(house.source, async (tx) => {
        const movement = {
          itemId: await house.itemId('SCL-B2'),
          lotId: lot[0]!.id,
          condition: 'good' as const,
          fromPlaceId: await ledger.outside(tx, 'supplier'),
          toPlaceId: await house.placeId('C-03-1'),
          units: 1,
        };
        await ledger.post(tx, act, [movement], { task: 'open', document: null });
      });
    };
    await expect(again()).rejects.toThrow('is in the house already');
    expect(await house.balance('SCL-B2', 'C-03-1')).toBe(0);
  });
});

describe('looking things up on the floor', () => {
  const look = async (code: string, who = maren) =>
    (await who.get(`look?code=${encodeURIComponent(code)}`).expect(200)).body as Record<string, unknown>;

  it('tells items, packs, lots, serial numbers, bins, papers and people apart', async () => {
    await house.stock('MTS-10', 'V-01-1', 6, { code: 'L55', expires: '2027-05-31' });
    const gtin = (
      ((await maren.get('items/MTS-10')).body as { packs: { factor: number; barcodes: string[] }[] }).packs.find((p) => p.factor === 10)!
        .barcodes[0] ?? ''
    ).padStart(14, '0');
    expect(await look('MTS-10')).toMatchObject({ kind: 'item', item: { holds: 1 }, stock: [{ place: 'V-01-1', units: 6 }] });
    expect(await look(`]d201${gtin}17270531` + '10L55')).toMatchObject({
      kind: 'item',
      lot: 'L55',
      item: { holds: 10 },
      stock: [{ lot: 'L55' }],
    });
    expect(await look('l55')).toMatchObject({ kind: 'item', lot: 'L55', expires: '2027-05-31' });
    expect(await look('SC-1')).toMatchObject({ kind: 'item', lot: 'SC-1', title: 'Hive scale' });
    expect(await look('v-01-1')).toMatchObject({ kind: 'place', contents: [{ sku: 'MTS-10', units: 6, unit: 'packs' }] });
    expect(await look('V-1005')).toMatchObject({ kind: 'person', title: 'Ines Calder' });
    expect(await look(await house.order([['MTS-10', 1]]))).toMatchObject({ kind: 'document' });
    expect(await look('5099999999994')).toMatchObject({ kind: 'unknown' });
  });

  it('shows nothing of other sites', async () => {
    await house.stock('MTS-10', 'M-01-1', 4, { code: 'L56', expires: '2027-05-31' });
    const ines = await house.as('Ines');
    expect(await look('M-01-1', ines)).toMatchObject({ kind: 'unknown' });
    expect(JSON.stringify(await look('MTS-10', ines))).not.toContain('M-01-1');
  });
});

describe('why', () => {
  it('adds up for every figure', async () => {
    for (const figure of ['on-hand', 'available', 'held', 'reserved', 'incoming', 'projected']) {
      const terms = (await maren.get(`items/JAR-454-RD/why/${figure}/1`).expect(200)).body as { sign: string; units: number }[];
      const result = terms.at(-1)!;
      expect(result.sign).toBe('=');
      expect([figure, terms.slice(0, -1).reduce((n, t) => n + (t.sign === '−' ? -t.units : t.units), 0)]).toEqual([figure, result.units]);
    }
    await maren.get('items/JAR-454-RD/why/everything/1').expect(404);
  });
});
