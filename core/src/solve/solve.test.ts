import { solve } from './index.js';

describe('the solver', () => {
  it('answers each case in its order', () => {
    const input = {
      cases: [
        { input: ']C10109506000134352', today: '2027-03-01' },
        { input: '', today: '2027-03-01' },
        { input: '01234565', today: '2027-03-01', context: 'upc-e', more: 1 },
      ],
      ignored: true,
    };
    const { output, code } = solve('gs1', JSON.stringify(input));
    expect(code).toBe(0);
    expect(output).toMatchObject({
      results: [
        { ok: true, gtin14: '09506000134352' },
        { ok: false, errorKind: 'empty' },
        { ok: true, gtin14: '00012345000065' },
      ],
    });
  });

  it.each([
    ['{', ''],
    ['[]', ''],
    ['{}', 'cases'],
    ['{"cases":[5]}', 'cases[0]'],
    ['{"cases":[{"today":"2027-03-01"}]}', 'cases[0].input'],
    ['{"cases":[{"input":"x"}]}', 'cases[0].today'],
    ['{"cases":[{"input":"x","today":"soon"}]}', 'cases[0].today'],
  ])('names the member at fault in %s', (text, path) => {
    const { output, code } = solve('gs1', text);
    expect(code).toBe(1);
    expect(output).toMatchObject({ error: { path, message: expect.any(String) as string } });
  });

  it.each(['constructor', 'nothing', ''])('knows no computation called "%s"', (name) => {
    expect(solve(name, '{}').code).toBe(1);
  });
});

describe('stock for orders, as one document', () => {
  const input = {
    today: '2027-03-01',
    stock: [
      { item: 'JAR', site: 'MAIN', bin: 'A-01-1', lot: 'L1', expires: '2027-06-01', received: '2027-01-04', units: 40, pickable: true },
    ],
    items: [{ id: 'JAR', rotation: 'fefo', minLifeDays: 14 }],
    orders: [
      {
        id: 'S1',
        priority: 0,
        due: '2027-03-01T15:00:00Z',
        placed: '2027-02-28T10:00:00Z',
        sites: ['MAIN', 'SHOP'],
        completeOnly: false,
        lines: [{ line: 1, item: 'JAR', units: 6 }],
      },
    ],
  };

  it('says from where each line is filled, and what it lacks', () => {
    expect(solve('allocate', JSON.stringify(input))).toEqual({
      code: 0,
      output: {
        allocations: [{ order: 'S1', line: 1, site: 'MAIN', bin: 'A-01-1', lot: 'L1', units: 6 }],
        short: [{ order: 'S1', line: 1, units: 0 }],
      },
    });
  });

  it.each([
    [{ ...input, today: 'soon' }, 'today'],
    [{ ...input, stock: [{ ...input.stock[0], units: -1 }] }, 'stock[0].units'],
    [{ ...input, items: [...input.items, ...input.items] }, 'items[1].id'],
    [{ ...input, orders: [...input.orders, ...input.orders] }, 'orders[1].id'],
    [{ ...input, orders: [{ ...input.orders[0], lines: [{ line: 1, item: 'JAR', units: 1.5 }] }] }, 'orders[0].lines[0].units'],
    [{ ...input, orders: [{ ...input.orders[0], due: 'late' }] }, 'orders[0].due'],
  ])('names the member at fault: %#', (faulty, path) => {
    expect(solve('allocate', JSON.stringify(faulty))).toMatchObject({ code: 1, output: { error: { path } } });
  });
});
