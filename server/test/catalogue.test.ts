import { type Caller, House } from './house.js';

describe('the catalogue', () => {
  let house: House;
  let maren: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
  });
  afterAll(() => house.close());

  const jar = {
    sku: 'jar-1l',
    name: 'Jar, one litre',
    className: 'Jars and lids',
    picture: 'jar',
    tracking: 'none',
    rotation: 'fifo',
    cost: '0.71',
    neverHoldsUp: false,
    sites: [{ siteId: 1, home: 'C-12-1' }],
    packs: [
      { name: 'Jar', plural: 'Jars', factor: 1, weightG: 410, lengthMm: 100, widthMm: 100, heightMm: 160, barcodes: ['9521077990007'] },
      { name: 'tray', plural: 'trays', factor: 24, barcodes: ['19521077990004'] },
    ],
  };
  const sheet = async (sku: string) =>
    (await maren.get(`items/${sku}`).expect(200)).body as {
      version: number;
      sites: { siteId: number; home: string | null }[];
      packs: { id: number; name: string; factor: number; barcodes: string[] }[];
      lacks: string[];
    };
  const edit = (sku: string, version: number, body: object) => maren.put(`items/${sku}`, body, { 'if-match': `"${version}"` });

  it('makes an item with its ladder and barcodes, and finds it by any of them', async () => {
    expect((await maren.post('items', jar).expect(201)).body).toEqual({ code: 'JAR-1L' });
    expect(await sheet('JAR-1L')).toMatchObject({
      sites: [expect.objectContaining({ siteId: 1, home: 'C-12-1' }), expect.anything(), expect.anything()],
      lacks: [],
      packs: [
        { name: 'tray', factor: 24 },
        { name: 'jar', barcodes: ['09521077990007'] },
      ],
    });
    for (const q of ['9521077990007', '19521077990004', ']C10109521077990007', 'jar-1l']) {
      expect((await maren.get(`find?q=${encodeURIComponent(q)}`)).body).toMatchObject({ opens: '/shelves/items/JAR-1L' });
    }
  });

  it.each([
    ['a SKU that is taken', { ...jar, sku: 'JAR-454-RD' }, 'sku', 'JAR-454-RD is taken. Choose another SKU'],
    ['a barcode of another item', { ...jar, sku: 'NEW-1' }, 'packs', '9521077990007 is on JAR-1L already. One barcode means one thing'],
    [
      'a wrong check digit',
      { ...jar, sku: 'NEW-1', packs: [{ ...jar.packs[0], barcodes: ['9521077990008'] }] },
      'packs',
      '9521077990008 has a wrong check digit. Scan the barcode rather than typing it',
    ],
    ['no base unit', { ...jar, sku: 'NEW-1', packs: [jar.packs[1]] }, 'packs', 'One pack unit is the base unit, with 1 in it'],
    [
      'two packs of one size',
      { ...jar, sku: 'NEW-1', packs: [jar.packs[0], { ...jar.packs[0], name: 'x', barcodes: [] }] },
      'packs',
      'Two pack units hold the same number. Keep one of them',
    ],
    [
      'a home that is no place',
      { ...jar, sku: 'NEW-1', sites: [{ siteId: 1, home: 'Z-99-9' }] },
      'home',
      'There is no place Z-99-9 at that site. Type the code of a bin',
    ],
  ])('refuses %s', async (_, body, field, says) => {
    const answer = await maren.post('items', body).expect(400);
    expect((answer.body as { fields: Record<string, string> }).fields[field]).toBe(says);
    await maren.get('items/NEW-1').expect(404);
  });

  it('takes SKUs as real firms write them: with spaces, slashes and umlauts, and finds them by their own address', async () => {
    const sku = 'Tür  1/2 #3';
    const [first] = jar.packs;
    const body = { ...jar, sku, packs: [{ ...first, barcodes: [] }] };
    expect((await maren.post('items', { ...body, sku: 'Tür 1/2 #3' }).expect(201)).body).toEqual({ code: 'TÜR 1/2 #3' });
    const at = encodeURIComponent('TÜR 1/2 #3');
    const { version } = await sheet(at);
    await edit(at, version, { ...body, sku: 'TÜR 1/2 #3', name: 'Door, left' }).expect(200);
    for (const q of ['tür 1/2 #3', 'door, left'])
      expect(JSON.stringify((await maren.get(`find?q=${encodeURIComponent(q)}`)).body)).toContain(`"/shelves/items/${at}"`);
    await maren.get(`items/${at}/stock`).expect(200);
    // What differs in marks alone is one code to the books.
    const like = (await maren.post('items', { ...body, sku: 'TUR 1/2 #3' }).expect(400)).body as { fields: { sku: string } };
    expect(like.fields.sku).toBe('TÜR 1/2 #3 is taken, and differs in marks alone. Choose another SKU');
    for (const bad of ['A  ', ' A', 'A;B', 'A?', '', 'A\tB'])
      expect([bad, (await maren.post('items', { ...body, sku: bad })).status]).toEqual([bad, 400]);
  });

  it('keeps pack ids when an item is changed, so that documents still fit', async () => {
    const before = await sheet('JAR-1L');
    const bigger = { ...jar, packs: [...jar.packs, { name: 'pallet', plural: 'pallets', factor: 960, barcodes: [] }] };
    await edit('JAR-1L', before.version, bigger).expect(200);
    const after = await sheet('JAR-1L');
    expect(after.packs.find((p) => p.factor === 24)!.id).toBe(before.packs.find((p) => p.factor === 24)!.id);
    expect((await edit('JAR-1L', before.version, jar).expect(412)).body).toMatchObject({ code: 'version' });
  });

  it('does not drop a pack that a purchase order is written in', async () => {
    const { version } = await sheet('JAR-454-RD');
    const packs = [{ name: 'jar', plural: 'jars', factor: 1, barcodes: [] }];
    const answer = await edit('JAR-454-RD', version, { ...jar, sku: 'JAR-454-RD', packs }).expect(409);
    expect((answer.body as { detail: string }).detail).toContain('must stay');
  });

  it('does not change how an item is tracked while there is stock', async () => {
    await house.stock('JAR-1L', 'C-12-1', 3);
    const { version } = await sheet('JAR-1L');
    await edit('JAR-1L', version, { ...jar, tracking: 'lot' }).expect(409);
  });

  it('lists items with their stock and says what is missing', async () => {
    const { rows } = (await maren.get('items?search=jar&limit=200').expect(200)).body as {
      rows: {
        sku: string;
        onHand: number;
        available: number;
        lacks: string[];
      }[];
    };
    expect(rows.find((r) => r.sku === 'JAR-1L')).toMatchObject({ onHand: 3, available: 3 });
    const bare = (await maren.get('items?search=strapping')).body as { rows: { lacks: string[] }[] };
    expect(bare.rows[0]!.lacks).toEqual(['barcode']);
    expect((await maren.get('items?search=%25')).body).toEqual({ rows: [], total: 0 });
  });

  it('explains what is on hand and what is available', async () => {
    await house.stock('SUIT-M', 'B-01-1', 8);
    const order = await house.order([['SUIT-M', 3]]);
    expect((await maren.get('items/SUIT-M/why/available/1')).body).toEqual([
      { sign: '', term: 'On hand', units: 8, documents: ['OPENING'] },
      { sign: '−', term: 'Reserved', units: 3, documents: [`${order} 3`] },
      { sign: '−', term: 'Held', units: 0, documents: [] },
      { sign: '=', term: 'Available', units: 5, documents: [] },
    ]);
    expect((await maren.get('items/SUIT-M/why/on-hand/1')).body).toEqual([
      { sign: '', term: 'Opening stock', units: 8, documents: ['OPENING'] },
      { sign: '=', term: 'On hand', units: 8, documents: [] },
    ]);
  });

  it('keeps supplier price lists, and refuses a pack that the item does not have', async () => {
    const supplier = {
      code: 'ALDER',
      name: 'Alder Baskets',
      email: 'orders@alder.example',
      phone: '',
      currency: 'GBP',
      leadDays: 9,
      items: [{ sku: 'JAR-1L', factor: 24, supplierSku: 'J1', price: '17.04' }],
    };
    await maren.post('suppliers', supplier).expect(201);
    expect((await maren.get('suppliers/ALDER')).body).toMatchObject({ leadDays: 9, items: [{ sku: 'JAR-1L', price: '17.040000' }] });
    const wrong = { ...supplier, items: [{ ...supplier.items[0], factor: 25 }] };
    expect((await maren.put('suppliers/ALDER', wrong, { 'if-match': '"1"' }).expect(400)).body).toMatchObject({
      fields: { 'items.0.factor': 'JAR-1L has no pack of 25. Add it to the item first' },
    });
    expect((await maren.get('suppliers/ALDER')).body).toMatchObject({ version: 1, items: [{ price: '17.040000' }] });
  });

  it('keeps channels with listings under their own codes', async () => {
    const fair = {
      code: 'FAIR',
      name: 'County fair',
      kind: 'marketplace',
      siteId: 1,
      listings: [{ channelSku: 'F-1', sku: 'JAR-1L', factor: 6, keepBack: 1, price: '5' }],
    };
    await maren.post('channels', fair).expect(201);
    expect((await maren.get('channels/FAIR')).body).toMatchObject({ listings: 1, items: [{ channelSku: 'F-1', factor: 6, keepBack: 1 }] });
    const code = await house.order([['F-1', 2]], { channel: 'FAIR' });
    expect((await maren.get(`orders/${code}`)).body).toMatchObject({ lines: [{ sku: 'JAR-1L', wanted: 12, reserved: 3 }] });
    await maren.put('channels/FAIR', { name: 'Fair', listings: [] }, { 'if-match': '"7"' }).expect(412);
  });
});

describe('places', () => {
  let house: House;
  let maren: Caller;
  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
  });
  afterAll(() => house.close());

  it('are made, found by code and kind, and refuse a code twice', async () => {
    await maren.post('places', { siteId: 1, code: 'x-01-1', kind: 'pick-face', pickable: true }).expect(201);
    expect((await maren.get('places/X-01-1')).body).toMatchObject({ code: 'X-01-1', kind: 'pick-face', pickable: true, stock: [] });
    expect((await maren.get('places?search=X-&kind=pick-face')).body).toMatchObject({ total: 1, rows: [{ code: 'X-01-1' }] });
    await maren.post('places', { siteId: 1, code: 'X-01-1', kind: 'reserve', pickable: false }).expect(400);
  });

  it('do not become something else while goods stand there', async () => {
    await house.stock('SMK-LGE', 'X-01-1', 2);
    await maren.patch('places/X-01-1', { kind: 'tote' }, { 'if-match': '"1"' }).expect(409);
    await maren.patch('places/X-01-1', { blocked: true }, { 'if-match': '"1"' }).expect(200);
    expect((await maren.get('places/X-01-1')).body).toMatchObject({ blocked: true, stock: [{ sku: 'SMK-LGE', units: 2 }] });
    await maren.patch('places/X-01-1', { blocked: false }, { 'if-match': '"1"' }).expect(412);
  });
});
