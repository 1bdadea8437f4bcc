import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import yazl from 'yazl';
import { type Caller, House } from './house.js';
import { checked, settled, takenIn, upload } from './importing.js';

let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
});
afterAll(() => house.close());

const count = async (table: string) => Number((await house.source.query<{ n: string }[]>(`SELECT COUNT(*) AS n FROM ${table}`))[0]!.n);
const said = (answer: { body: unknown }) => (answer.body as { detail: string }).detail;

describe('taking a file in', () => {
  it('guesses what its columns hold, says what is wrong with each row, and writes nothing', async () => {
    const before = await count('item');
    const run = await checked(
      house,
      maren,
      'stock list.csv',
      'Part number;Description;Unit cost;EAN;Weight\nNEW-1;Skep;12,50;9521077999994;800\nNEW-2;;abc;123;-4\nNEW-1;Twice;1;;\nJAR?9;Bad code;1;;\n',
    );
    expect(run).toMatchObject({ kind: 'items', state: 'checked', total: 4, faulty: 4 - 1 });
    expect(run.faults.map((f) => [f.row, f.field])).toEqual([
      [3, 'Cost'],
      [3, 'Name'],
      [3, 'Weight, g'],
      [4, 'SKU'],
      [5, 'SKU'],
    ]);
    expect(run.faults[0]).toMatchObject({ value: 'abc', reason: expect.stringContaining('number') });
    expect(await count('item')).toBe(before);
    await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: false }).expect(409);
    const rows = (await maren.bytes(`imports/${run.id}/faulty.csv`).expect(200)).body as Buffer;
    expect(rows.toString().split('\r\n')).toHaveLength(5);
    expect(rows.toString()).toContain('What is wrong');
    await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: true }).expect(204);
    expect(await settled(house, maren, run.id)).toMatchObject({ state: 'applied', made: 1 });
    expect((await maren.get('items/NEW-1')).body).toMatchObject({ name: 'Skep', cost: '12.500000', lacks: ['size or weight'] });
  });

  it('remembers what it was told of files with the same heads', async () => {
    const heads = 'Col A,Col B\n';
    const { id } = (await upload(maren, 'odd.csv', `${heads}ODD-1,An odd thing\n`).expect(201)).body as { id: string };
    await maren.put(`imports/${id}/columns`, { kind: 'items', fields: ['sku', ''] }).expect(400);
    await maren.put(`imports/${id}/columns`, { kind: 'items', fields: ['sku', 'sku'] }).expect(400);
    await maren.put(`imports/${id}/columns`, { kind: 'items', fields: ['sku', 'name'] }).expect(204);
    await settled(house, maren, id);
    const again = (await upload(maren, 'odd too.csv', `${heads}ODD-2,Another\n`).expect(201)).body as { id: string };
    expect((await maren.get(`imports/${again.id}`)).body).toMatchObject({ kind: 'items', columns: [{ field: 'sku' }, { field: 'name' }] });
  });

  it('changes only what the file has a column for', async () => {
    await takenIn(house, maren, 'costs.csv', 'SKU,Name,Cost\nBOK-YEAR,Book: The apiary year,7.10\n');
    expect((await maren.get('items/BOK-YEAR')).body).toMatchObject({
      cost: '7.100000',
      className: 'Books',
      packs: [{ factor: 16 }, { factor: 1 }],
    });
  });

  it('reads a file that is sent twice under one key once', async () => {
    const key = randomUUID();
    const send = () => maren.file('post', 'imports?name=a.csv', Buffer.from('SKU,Name\nTW-1,Twice sent\n')).set('idempotency-key', key);
    const [a, b] = [await send().expect(201), await send().expect(201)];
    expect((a.body as { id: string }).id).toBe((b.body as { id: string }).id);
    const other = await maren.file('post', 'imports?name=a.csv', Buffer.from('SKU,Name\nTW-2,Another\n')).set('idempotency-key', key);
    expect([other.status, (other.body as { code: string }).code]).toEqual([422, 'key-reused']);
  });

  it('is kept to those with the right for what is in the file, and to who sent it', async () => {
    const orla = await house.as('Orla');
    const { id } = (await upload(orla, 'c.csv', 'Customer,Name\nNEWCUST,New\n').expect(201)).body as { id: string };
    const piet = await house.as('Piet');
    await piet.get(`imports/${id}`).expect(404);
    const items = (await upload(orla, 'i.csv', 'SKU,Name\nX-1,x\n', 'items').expect(201)).body as { id: string };
    expect(said(await orla.put(`imports/${items.id}/columns`, { kind: 'items', fields: ['sku', 'name'] }).expect(403))).toContain(
      'right to items',
    );
    await (await house.as('Ines')).file('post', 'imports?name=x.csv', Buffer.from('SKU,Name\nX,x\n')).expect(403);
  });
});

describe('a file that a spreadsheet has spoilt', () => {
  it('is refused row by row with the reason, and makes no second item', async () => {
    await takenIn(house, maren, 'plain.csv', 'SKU,Name\n00123,Comb frame\n');
    const spoilt = [
      'SKU,Name,Barcodes',
      '123,Comb frame,',
      '12-Mar,Frame,',
      'FR-2,"9,52108E+12",',
      'FR-3,Frame,36000291452',
      'FR-4,Frame,"9,52108E+12"',
    ].join('\n');
    const run = await checked(house, maren, 'spoilt.csv', spoilt, { kind: 'items' });
    expect(run.faulty).toBe(5);
    const reasons = run.faults.map((f) => f.reason).join('\n');
    for (const words of ['There is an item 00123', 'made a date of this code', 'rounded this number', 'may be 036000291452'])
      expect(reasons).toContain(words);
    const stock = await checked(house, maren, 'stock.csv', 'SKU,Place,Units,Expires\n123,DOCK-1,4,46143\n', { kind: 'stock' });
    const stockReasons = stock.faults.map((f) => f.reason).join('\n');
    expect(stockReasons).toContain('it may be 2026-05-01');
  });
});

describe('taking an import back', () => {
  it('takes out what was made and puts back what was changed', async () => {
    const before = (await maren.get('items/SMK-LGE')).body as { name: string };
    const run = await takenIn(
      house,
      maren,
      'u.csv',
      'SKU,Name,Barcodes,Tags\nUNDO-1,To be undone,9521077888885,heavy\nSMK-LGE,Renamed,,\n',
    );
    expect(run).toMatchObject({ made: 1, changed: 1 });
    await maren.post(`imports/${run.id}/undo`).expect(204);
    await maren.get('items/UNDO-1').expect(404);
    expect((await maren.get('items/SMK-LGE')).body).toMatchObject({ name: before.name, lacks: [] });
    expect(said(await maren.post(`imports/${run.id}/undo`).expect(409))).toContain('taken back');
  });

  it('is refused once something depends on it, and then takes nothing back', async () => {
    const run = await takenIn(house, maren, 'd.csv', 'SKU,Name\nDEP-1,In use\nDEP-2,Not in use\n');
    await house.stock('DEP-1', 'A-01-1', 3);
    expect(said(await maren.post(`imports/${run.id}/undo`).expect(409))).toContain('in use');
    await maren.get('items/DEP-2').expect(200);
  });

  it('is refused where somebody changed a row since', async () => {
    const run = await takenIn(house, maren, 'e.csv', 'SKU,Name\nGLV-L,Gloves renamed\n');
    const { version } = (await maren.get('items/GLV-L')).body as { version: number };
    await maren.patch('items/GLV-L', { field: 'className', value: 'Hands' }, { 'if-match': `"${version}"` }).expect(200);
    expect(said(await maren.post(`imports/${run.id}/undo`).expect(409))).toContain('changed after this import');
  });
});

describe('opening stock', () => {
  const file = (rows: string) => `SKU,Place,Lot or serial,Expires,Count,Counted in packs of,Cost of a unit\n${rows}`;

  it('lies where the file says, with its lots, dates, serial numbers and costs, and can be taken back', async () => {
    const run = await takenIn(
      house,
      maren,
      's.csv',
      file('JAR-340-HX,B-01-1,,,2,48,0.38\nMTS-02,V-02-1,L7,31/12/2027,20,,4.80\nEXT-4T,C-01-1,EX-1,,1,,\nEXT-4T,C-01-1,EX-2,,1,,\n'),
    );
    expect(run.made).toBe(4);
    expect(await house.balance('JAR-340-HX', 'B-01-1')).toBe(96);
    const bins = (await maren.get('items/MTS-02/stock')).body as { bins: object[] };
    expect(bins.bins).toContainEqual(expect.objectContaining({ place: 'V-02-1', lot: 'L7', expires: '2027-12-31', units: 20 }));
    await maren.post(`imports/${run.id}/undo`).expect(204);
    expect(await house.balance('JAR-340-HX', 'B-01-1')).toBe(0);
    expect(await house.balance('EXT-4T', 'C-01-1')).toBe(0);
  });

  it('opens the books: its worth is no difference of a count, and goes as it came when it is taken back', async () => {
    const entries = () =>
      house.source.query<{ debit: string; credit: string; amount: string }[]>(
        `SELECT e.debit, e.credit, e.amount FROM value_entry e JOIN item i ON i.id = e.item_id WHERE i.sku = 'UNC-FORK' ORDER BY e.id`,
      );
    const run = await takenIn(house, maren, 'worth.csv', file('UNC-FORK,B-02-1,,,10,,0.25\n'));
    expect(await entries()).toEqual([{ debit: 'stock', credit: 'opening', amount: '2.500000' }]);
    await maren.post(`imports/${run.id}/undo`).expect(204);
    expect((await entries()).at(-1)).toEqual({ debit: 'opening', credit: 'stock', amount: '2.500000' });
  });

  it.each([
    ['an item that is not known', 'NOPE,B-01-1,,,1,,', 'There is no item NOPE'],
    ['a place that is not known', 'JAR-340-HX,Z-9,,,1,,', 'There is no place Z-9'],
    ['a lot for goods without lots', 'JAR-340-HX,B-01-1,L1,,1,,', 'not kept by lot'],
    ['goods kept by lot without one', 'MTS-02,V-02-1,,,1,,', 'kept by lot'],
    ['goods kept by date without one', 'MTS-02,V-02-1,L8,,1,,', 'Give the date'],
    ['a date that there is not', 'MTS-02,V-02-1,L8,2027-02-30,1,,', 'should be a date'],
    ['a serial number for two pieces', 'EXT-4T,C-01-1,EX-9,,2,,', 'one piece'],
    ['a pack that the item has not', 'JAR-340-HX,B-01-1,,,1,7,', 'no pack of 7'],
    ['nothing counted', 'JAR-340-HX,B-01-1,,,0,,', 'whole number'],
  ])('refuses %s', async (_, row, reason) => {
    const run = await checked(house, maren, 'bad.csv', file(`${row}\n`));
    expect(run).toMatchObject({ kind: 'stock', faulty: 1 });
    expect(run.faults[0]!.reason).toContain(reason);
  });

  it('refuses a serial number that stands in the house already', async () => {
    await takenIn(house, maren, 's1.csv', file('SCL-B2,C-02-1,SC-7,,1,,\n'));
    const run = await checked(house, maren, 's2.csv', file('SCL-B2,C-03-1,SC-7,,1,,\n'));
    expect(run.faults[0]!.reason).toContain('in the house already');
  });

  it('counts one file once', async () => {
    const rows = file('TOOL-JH,D-01-1,,,5,,\n');
    await takenIn(house, maren, 'once.csv', rows);
    const twin = await checked(house, maren, 'once more.csv', rows);
    expect(said(await maren.post(`imports/${twin.id}/apply`, { goodRowsOnly: false }).expect(409))).toContain('taken in before');
  });
});

describe('costs', () => {
  it('that were typed and that the books hold are told apart, and stock leaves with what it is worth', async () => {
    await takenIn(house, maren, 'skep.csv', 'SKU,Name,Cost\nSKEP-9,Skep,5.00\n');
    await takenIn(house, maren, 'skeps.csv', 'SKU,Place,Count,Cost of a unit\nSKEP-9,A-03-1,4,3.20\n');
    expect((await maren.get('items/SKEP-9').expect(200)).body).toMatchObject({ cost: '5.000000', bookedCost: '3.200000' });
    const stock = String((await maren.bytes('exports/data/stock.csv').expect(200)).body as Buffer);
    expect(stock.split('\r\n').find((l) => l.startsWith('SKEP-9'))).toMatch(/,3\.2$/);
    const ines = (await (await house.as('Ines')).get('items/SKEP-9').expect(200)).body as object;
    expect(ines).not.toHaveProperty('cost');
    expect(ines).not.toHaveProperty('bookedCost');
  });
});

describe('one file of stock that two people take in at once', () => {
  it('is counted once, whoever presses first', async () => {
    const rows = 'SKU,Place,Count\nTOOL-JH,D-02-1,7\n';
    const [mine, theirs] = [await checked(house, maren, 'mine.csv', rows), await checked(house, maren, 'theirs.csv', rows)];
    const apply = (id: string) => maren.post(`imports/${id}/apply`, { goodRowsOnly: false });
    const answers = await Promise.all([apply(mine.id), apply(theirs.id)]);
    expect(answers.map((a) => a.status).sort()).toEqual([204, 409]);
    await settled(house, maren, mine.id);
    await settled(house, maren, theirs.id);
    expect(await house.balance('TOOL-JH', 'D-02-1')).toBe(7);
    expect(said(answers.find((a) => a.status === 409)!)).toContain('taken in before');
  });
});

describe('parts, policies and places', () => {
  it('refuses parts that lead in a circle, and takes none of the file in', async () => {
    await takenIn(house, maren, 'kits.csv', 'SKU,Name,Kind\nRING-A,Ring A,kit\nRING-B,Ring B,kit\n');
    const run = await checked(house, maren, 'ring.csv', 'Kit or assembly,Part,Units in one\nRING-A,RING-B,1\nRING-B,RING-A,2\n');
    await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: false }).expect(204);
    expect(await settled(house, maren, run.id)).toMatchObject({ state: 'checked', problem: expect.stringContaining('part of itself') });
    expect((await maren.get('items/RING-A')).body).toMatchObject({ parts: [] });
  });

  it('says which site or bin a policy does not find', async () => {
    const run = await checked(
      house,
      maren,
      'p.csv',
      'SKU,Site,Home bin,Reorder point,Order up to\nJAR-454-RD,MOON,A-01-1,1,2\nJAR-454-RD,MILL,A-01-1,9,2\n',
    );
    expect(run.faults.map((f) => f.reason)).toEqual(['There is no site MOON', 'Order up to at least the reorder point']);
  });
});

describe('hostile files', () => {
  const mischief: readonly (readonly [string, Buffer | string])[] = [
    ['nothing at all', ''],
    ['heads and nothing beneath', 'SKU,Name\n'],
    ['only empty lines', '\n\n\n'],
    ['bytes that are no text', Buffer.from([0, 1, 2, 3, 0, 255, 254, 0])],
    ['an open quotation mark', 'SKU,Name\nA,"never closed\n'],
    ['a huge cell', `SKU,Name\nA,${'x'.repeat(5_000)}\n`],
    ['more cells than heads', 'SKU,Name\nA,b,c,d\n'],
    ['a thousand columns', `${'a,'.repeat(1_000)}\n1\n`],
    ['a broken archive', Buffer.from('PK\u0003\u0004 nothing of the kind')],
  ];
  it.each(mischief)('with %s are refused with a sentence, and nothing is kept', async (_, content) => {
    const before = [await count('import_run'), await count('import_row')];
    const answer = await upload(maren, 'bad.csv', content).expect(400);
    expect(answer.body).toMatchObject({ code: 'file' });
    expect(said(answer)).toMatch(/^[A-Z].{10,}/);
    expect([await count('import_run'), await count('import_row')]).toEqual(before);
  });

  it('that would burst are refused before they do', async () => {
    const zip = new yazl.ZipFile();
    zip.addBuffer(Buffer.alloc(40_000_000), 'xl/worksheets/sheet1.xml');
    zip.addBuffer(Buffer.from('<x/>'), '[Content_Types].xml');
    zip.end();
    const parts: Buffer[] = [];
    for await (const part of zip.outputStream) parts.push(part as Buffer);
    expect(said(await upload(maren, 'bomb.xlsx', Buffer.concat(parts)).expect(400))).toContain('unpacks to far more');
  });

  it('in other encodings read as what they say', async () => {
    const text = 'SKU,Name\nENC-1,Größe – Łódź\n';
    const utf16 = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, 'utf16le')]);
    for (const bytes of [Buffer.from(text), Buffer.concat([Buffer.from([0xef, 0xbb, 0xbf]), Buffer.from(text)]), utf16]) {
      await takenIn(house, maren, 'enc.csv', bytes);
      expect((await maren.get('items/ENC-1')).body).toMatchObject({ name: 'Größe – Łódź' });
    }
    await takenIn(house, maren, 'win.csv', Buffer.from('SKU,Name\nENC-2,Gr\xf6\xdfe\n', 'latin1'));
    expect((await maren.get('items/ENC-2')).body).toMatchObject({ name: 'Größe' });
  });

  it('of any bytes never break the house, and never take half of themselves in', async () => {
    const cell = fc.oneof(fc.string(), fc.constantFrom('=1+1', '"', '\u0000', '9521077000010', "'; DROP TABLE item; --", '\ufeff', ','));
    const file = fc.oneof(
      fc.uint8Array({ maxLength: 300 }).map((b) => Buffer.from(b)),
      fc
        .array(fc.array(cell, { maxLength: 5 }), { maxLength: 5 })
        .map((rows) => Buffer.from(`SKU,Name,Cost\n${rows.map((r) => r.join(',')).join('\n')}`)),
    );
    const before = await count('item');
    await fc.assert(
      fc.asyncProperty(file, async (bytes) => {
        const answer = await upload(maren, 'fuzz.csv', bytes);
        if (answer.status === 400) return;
        expect(answer.status).toBe(201);
        const { id } = answer.body as { id: string };
        const map = await maren.put(`imports/${id}/columns`, { kind: 'items', fields: ['sku', 'name', 'cost'] });
        if (map.status === 204) expect(['checked', 'failed']).toContain((await settled(house, maren, id)).state);
        else expect(map.status).toBe(400);
      }),
      { numRuns: 40 },
    );
    expect(await count('item')).toBe(before);
  });
});
