import fc from 'fast-check';
import { type Caller, House } from './house.js';
import { checked, settled, takenIn, upload } from './importing.js';

let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
});
afterAll(() => house.close());

const given = async (kind: string) => String((await maren.bytes(`exports/data/${kind}.csv`).expect(200)).body as Buffer);
/** What the house gave out last, as long as nothing else has changed it. */
let seen: Record<string, string> | undefined;

/** All that the house would give out again, by kind. */
async function everything(): Promise<Record<string, string>> {
  const kinds = (await maren.get('imports/kinds').expect(200)).body as { kind: string }[];
  const files: Record<string, string> = {};
  for (const { kind } of kinds) files[kind] = await given(kind);
  return files;
}

/** A small good file of each kind: something new in it, and something changed where the house has such a row. */
const GOOD: readonly (readonly [kind: string, csv: string])[] = [
  ['sites', 'Site,Site name,Working days\nKILN,Kiln Yard,YYYYYYN\n'],
  ['plan', 'Site,Drawn,Label,"From x, m","From y, m","To x, m","To y, m"\nMILL,aisle,Z,38,3,38,20\n'],
  ['zones', 'Zone,Zone name,Site,Rule\nCHILL,Cold corner,MILL,cold\n'],
  ['walls', 'Wall,Site,Slots in a row\nWALL-9,MILL,5\n'],
  ['places', 'Place,Kind of place,Site,Open to picking\nZ-09-1,pick-face,MILL,yes\nA-01-1,pick-face,MILL,no\n'],
  ['items', 'SKU,Name,Class,Cost\nSKEP-1,Straw skep,Hives,18.40\nBOK-WAX,Book: Wax,Books,6.00\n'],
  ['packs', 'SKU,Pack,Packs,Holds,"Weight, g"\nBOK-WAX,bundle,bundles,7,2100\n'],
  ['barcodes', 'Barcode,SKU,Holds\nSKEP-OLD-7,BOK-WAX,1\n'],
  ['parts', 'Kit or assembly,Part,Units in one\nSTARTER-X,BOK-WAX,2\n'],
  ['policies', 'SKU,Site,Home bin,Reorder point,Order up to\nBOK-WAX,MILL,A-02-1,4,24\n'],
  ['suppliers', 'Supplier,Name,"Lead time, days"\nSKEPWORKS,Skep Works,21\n'],
  ['contacts', 'Supplier,Person,Does,E-mail\nQUILL,Una Skep,Orders,una@skep.example\n'],
  ['prices', 'Supplier,SKU,Holds,Supplier’s code,Price of a pack\nQUILL,BOK-WAX,1,QW-9,5.15\n'],
  ['breaks', 'Supplier,SKU,From packs,Price of a pack\nQUILL,BOK-WAX,12,4.85\n'],
  ['carriers', 'Carrier,Name\nCARTER,Carter and Sons\nHARRIER,Harrier Parcels\n'],
  ['lanes', 'Carrier,Site,Lane\nHARRIER,MILL,LANE-NORTHWAY\n'],
  ['services', 'Carrier,Service,Name,Days,Price,"Carries, g"\nHARRIER,boat,By boat,9,1.10,2000\n'],
  [
    'boxes',
    'Box,"Length, mm","Width, mm","Height, mm","Weighs, g","Carries, g",Cost\nTUBE,600,90,90,140,2000,0.80\nB1,221,160,110,90,5000,0.21\n',
  ],
  ['customers', 'Customer,Name,E-mail\nSKEPPER,The Skepper,skep@mail.example\n'],
  ['addresses', 'Customer,Called,Address,Postcode\nWICKHILL,North barn,"4 Barn Row",NW8 2RF\n'],
  ['customer-prices', 'Customer,SKU,Units in one,Customer pays\nWICKHILL,BOK-WAX,1,11.50\n'],
  ['channels', 'Channel,Name,Kind of channel,Site\nFAIR,Spring fair,phone,MILL\n'],
  ['channel-sites', 'Channel,Site\nSHOP,QUAY\n'],
  ['listings', 'Channel,Channel’s code,SKU,Price\nPHONE,WAX-BOOK,BOK-WAX,14.00\n'],
  ['stock', 'SKU,Place,Count\nBOK-WAX,A-03-1,11\n'],
  ['demand', 'SKU,Site,Week,Units asked for\nBOK-WAX,MILL,2026-W05,14\nBOK-WAX,MILL,2026-02-04,9\n'],
  ['buying-rules', 'Class,SKU,Site,"Met from the shelf, per cent",Supplier\nBooks,,,98.5,\n,BOK-WAX,MILL,,QUILL\n'],
  ['payments', 'Paid on,Amount,Purpose,Bank reference\n2026-05-14,12.50,for nothing,BK-1\n'],
];

describe('every kind of file', () => {
  it('has an example here', async () => {
    const kinds = ((await maren.get('imports/kinds').expect(200)).body as { kind: string }[]).map((k) => k.kind);
    expect([...kinds].sort()).toEqual(GOOD.map(([kind]) => kind).sort());
  });

  it.each(GOOD)('is taken in and back, of %s, and leaves the house as it was', async (kind, csv) => {
    if (kind === 'parts') {
      await takenIn(house, maren, 'kit.csv', 'SKU,Name,Kind\nSTARTER-X,Starter,kit\n');
      seen = undefined;
    }
    if (['prices', 'contacts', 'buying-rules'].includes(kind)) csv = csv.replace('QUILL', (await supplier()).code);
    if (kind === 'breaks') csv = csv.replace('QUILL,BOK-WAX', await priced());
    const before = seen ?? (await everything());
    const run = await checked(house, maren, `${kind}.csv`, csv, { kind });
    expect(run).toMatchObject({ kind, faults: [], faulty: 0 });
    await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: false }).expect(204);
    const applied = await settled(house, maren, run.id);
    expect(applied).toMatchObject({ state: 'applied', problem: null });
    expect(applied.made + applied.changed).toBe(csv.trim().split('\n').length - 1);
    expect(await given(kind)).not.toBe(before[kind]);
    await maren.post(`imports/${run.id}/undo`).expect(204);
    seen = await everything();
    expect(seen).toEqual(before);
  });
});

/** A supplier and an item that it has a price for, and no lower one. */
async function priced(): Promise<string> {
  const [pair] = await house.source.query<{ code: string; sku: string }[]>(
    'SELECT s.code, i.sku FROM supplier_item t JOIN supplier s ON s.id = t.supplier_id JOIN item i ON i.id = t.item_id LEFT JOIN supplier_price_break b ON b.item_id = t.item_id WHERE b.item_id IS NULL LIMIT 1',
  );
  return `${pair!.code},${pair!.sku}`;
}

const supplier = async () => (await house.source.query<{ code: string }[]>('SELECT code FROM supplier ORDER BY id LIMIT 1'))[0]!;

/** One bad row of a kind: the field it is wrong in, and what is said. */
const BAD: readonly (readonly [kind: string, heads: string, cells: string, field: string, says: RegExp])[] = [
  ['sites', 'Site,Site name', 'K-1,Kiln', 'Site', /2 to 12 letters and digits/],
  ['sites', 'Site,Site name,Working days', 'KILN,Kiln,MTWTF', 'Working days', /Seven letters/],
  ['sites', 'Site,Site name,Working days', 'KILN,Kiln,NNNNNNN', 'Working days', /Seven letters/],
  ['plan', 'Site,Drawn,"From x, m","From y, m","To x, m","To y, m"', 'MILL,river,1,1,2,2', 'Drawn', /one of: aisle, walkway, wall/],
  ['plan', 'Site,Drawn,"From x, m","From y, m","To x, m","To y, m"', 'MILL,wall,1,1,far,2', 'To x, m', /metres/],
  ['plan', 'Site,Drawn,"From x, m","From y, m","To x, m","To y, m"', 'NOWHERE,wall,1,1,2,2', 'Site', /no site NOWHERE/],
  ['zones', 'Zone,Zone name,Site,Rule', 'CHILL,Cold,MILL,frosty', 'Rule of the zone', /one of/],
  ['walls', 'Wall,Site,Slots in a row', 'WALL-9,MILL,many', 'Slots in a row', /number/],
  ['places', 'Place,Kind of place,Site', 'A 1,pick-face,MILL', 'Place', /./],
  ['places', 'Place,Kind of place,Site', 'Z-01-1,shelf,MILL', 'Kind', /one of/],
  ['places', 'Place,Kind of place,Site', 'Z-01-1,pick-face,NOWHERE', 'Site', /no site NOWHERE/],
  ['places', 'Place,Kind of place,Site,Open to picking', 'Z-01-1,pick-face,MILL,maybe', 'Open to picking', /yes or no/],
  ['items', 'SKU,Name,Cost', 'A-1,Thing,-4', 'Cost', /number/],
  ['items', 'SKU,Name,Tracking', 'A-1,Thing,sometimes', 'Tracked by', /one of/],
  ['items', 'SKU,Name', `A-1,${'x'.repeat(300)}`, 'Name', /longer than/],
  ['packs', 'SKU,Pack,Packs,Holds', 'BOK-WAX,box,boxes,1', 'Holds', /from 2/],
  ['packs', 'SKU,Pack,Packs,Holds', 'NO-SUCH,box,boxes,6', 'SKU', /no item NO-SUCH/],
  ['barcodes', 'Barcode,SKU', '9521077000011,BOK-WAX', 'Barcode', /check digit/],
  ['barcodes', 'Barcode,SKU,Holds', 'FREE-1,BOK-WAX,999', 'Holds', /no pack of 999/],
  ['policies', 'SKU,Site,Reorder point,Order up to', 'BOK-WAX,MILL,20,10', 'Order up to', /at least the reorder point/],
  ['policies', 'SKU,Site,Reorder point', 'BOK-WAX,MILL,2.5', 'Reorder point', /whole number/],
  ['suppliers', 'Supplier,Name,E-mail', 'SKEPW,Skep Works,at home', 'E-mail', /e-mail address/],
  ['suppliers', 'Supplier,Name,"Lead time, days"', 'SKEPW,Skep Works,400', 'Lead time, days', /0 to 365/],
  ['carriers', 'Carrier,Name', 'C,Carter', 'Carrier', /2 to 20 letters/],
  ['lanes', 'Carrier,Site,Lane', 'NOBODY,MILL,LANE-HARRIER', 'Carrier', /no carrier NOBODY/],
  ['lanes', 'Carrier,Site,Lane', 'HARRIER,MILL,A-01-1', 'Lane', /not a dispatch lane/],
  ['services', 'Carrier,Service,Name,Days,Price,"Carries, g"', 'HARRIER,boat,Boat,soon,1.10,2000', 'Days', /whole number/],
  ['boxes', 'Box,"Length, mm","Width, mm","Height, mm","Weighs, g","Carries, g"', 'B9,0,90,90,140,2000', 'Length, mm', /from 10/],
  ['customers', 'Customer,Name,Country', 'SKEP,The Skepper,Wales', 'Country', /two letters/],
  ['channels', 'Channel,Name,Kind of channel,Site', 'FAIR,Fair,stall,MILL', 'Kind of channel', /one of/],
  ['channel-sites', 'Channel,Site', 'SHOP,NOWHERE', 'Site', /no site NOWHERE/],
  ['listings', 'Channel,Channel’s code,SKU,Price', 'NOPE,X,BOK-WAX,1', 'Channel', /no channel NOPE/],
  ['listings', 'Channel,Channel’s code,SKU,Price', 'PHONE,X,BOK-WAX,free', 'Price', /number/],
  ['stock', 'SKU,Place,Count', 'BOK-WAX,NO-BIN,4', 'Place', /no place NO-BIN/],
  ['demand', 'SKU,Site,Week,Units asked for', 'BOK-WAX,MILL,2026-W54,4', 'Week', /a week such as/i],
  ['demand', 'SKU,Site,Week,Units asked for', 'BOK-WAX,MILL,2026-W05,-4', 'Units asked for', /whole number/],
  ['buying-rules', 'Class,SKU,Bought no more', 'Books,BOK-WAX,yes', 'Class', /not both/],
  ['buying-rules', 'Class,SKU,Bought no more', 'Books,,yes', 'Bought no more', /said of one item/],
  ['buying-rules', 'Class,"Room for, units"', 'Books,40', 'Room for, units', /said of one item/],
  ['buying-rules', 'Class,SKU,Sells like', ',BOK-WAX,BOK-WAX', 'Sells like', /another item/],
  ['buying-rules', 'SKU,Per cent of it,Bought no more', 'BOK-WAX,50,yes', 'Sells like', /which item it sells like/],
  ['buying-rules', 'Class,"Met from the shelf, per cent"', 'Books,99.99', 'Met from the shelf, per cent', /50 to 99.9/],
  ['buying-rules', 'Class,Site,Bought no more', 'Books,MILL,no', 'Met from the shelf, per cent', /one thing at least/],
  ['stock', 'SKU,Place,Count', 'BOK-WAX,A-01-1,0', 'Count', /from 1/],
  ['stock', 'SKU,Place,Count,Lot or serial', 'BOK-WAX,A-01-1,4,L1', 'Lot or serial', /not kept by lot/],
  ['stock', 'SKU,Place,Count', 'MTS-10,V-01-1,4', 'Lot or serial', /Name the lot/],
  ['stock', 'SKU,Place,Count,Lot or serial,Expires', 'MTS-10,V-01-1,4,L1,31.02.2027', 'Expires', /date/],
  ['stock', 'SKU,Place,Count,Lot or serial', 'SCL-B2,C-01-1,2,S1', 'Count', /one piece/],
  ['stock', 'SKU,Place,Count,Condition', 'BOK-WAX,A-01-1,4,wet', 'Condition', /one of/],
];

describe('a bad row', () => {
  it.each(BAD)('of %s (%s: %s) is wrong in %s', async (kind, heads, cells, field, says) => {
    const run = await checked(house, maren, 'bad.csv', `${heads}\n${cells}\n`, { kind });
    expect(run).toMatchObject({ kind, state: 'checked', faulty: 1 });
    const found = run.faults.find((f) => f.field === field);
    expect(found?.reason).toMatch(says);
    const refused = await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: true }).expect(409);
    expect(refused.body).toMatchObject({ detail: expect.stringContaining('Every row is faulty') });
  });

  it('that comes twice is said to, in every kind that names its rows', async () => {
    for (const [kind, csv] of GOOD.filter(([k]) => !['plan', 'stock', 'prices', 'parts', 'contacts', 'breaks'].includes(k))) {
      const [heads, row] = csv.split('\n');
      const run = await checked(house, maren, 'twice.csv', `${heads}\n${row}\n${row}\n`, { kind });
      expect([kind, run.faulty]).toEqual([kind, 1]);
      expect(run.faults.every((f) => f.row === 3)).toBe(true);
    }
  });
});

describe('a file that only says what the house knows', () => {
  it.each(GOOD.map(([kind]) => kind).filter((k) => k !== 'stock'))(
    'changes nothing, of %s, and leaves every version as it was',
    async (kind) => {
      const versions = async () =>
        JSON.stringify(
          await Promise.all(
            ['item', 'place', 'supplier', 'customer', 'channel', 'site', 'carrier'].map((t) =>
              house.source.query(`SELECT id, version FROM ${t} ORDER BY id`),
            ),
          ),
        );
      const file = (await maren.bytes(`exports/data/${kind}.csv`).expect(200)).body as Buffer;
      if (file.toString().trim().split('\r\n').length < 2) return;
      const [files, before] = [await everything(), await versions()];
      const run = await checked(house, maren, `${kind} again.csv`, file, { kind });
      expect(run.faults).toEqual([]);
      await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: false }).expect(204);
      expect(await settled(house, maren, run.id)).toMatchObject({ state: 'applied', made: 0, changed: 0 });
      expect(await everything()).toEqual(files);
      expect(await versions()).toBe(before);
    },
  );
});

describe('files of any kind', () => {
  it('with anything in their cells are checked to the end and write nothing', async () => {
    const before = await everything();
    const word = fc.oneof(
      fc.string({ maxLength: 12 }),
      fc.constantFrom(
        'MILL',
        'BOK-WAX',
        'A-01-1',
        '1',
        '-1',
        '1e9',
        '2026-02-30',
        '=1+1',
        'yes',
        'aisle',
        '𝄞',
        '\u202e',
        '999999999999999999999',
      ),
    );
    const quoted = word.map((w) => `"${w.replace(/"/g, '""').replace(/\0/g, '')}"`);
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...GOOD),
        fc.array(fc.array(quoted, { minLength: 7, maxLength: 7 }), { minLength: 1, maxLength: 4 }),
        async ([kind, csv], rows) => {
          const heads = csv.split('\n')[0]!;
          const width = heads.replace(/"[^"]*"/g, 'x').split(',').length;
          const body = rows.map((r) => r.slice(0, width).join(',')).join('\n');
          const answer = await upload(maren, 'any.csv', `${heads}\n${body}\n`, kind);
          if (answer.status === 400) return;
          const { id } = answer.body as { id: string };
          const { columns } = (await maren.get(`imports/${id}`)).body as { columns: { field: string | null }[] };
          await maren.put(`imports/${id}/columns`, { kind, fields: columns.map((c) => c.field ?? '') }).expect(204);
          expect((await settled(house, maren, id)).state).toBe('checked');
        },
      ),
      { numRuns: 60 },
    );
    expect(await everything()).toEqual(before);
  });
});
