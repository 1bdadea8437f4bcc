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

describe('walks and rounds, as documents', () => {
  const walkways = {
    nodes: [
      { id: 'n1', x: 0, y: 0 },
      { id: 'n2', x: 0, y: 12 },
    ],
    edges: [['n1', 'n2']],
  };
  const stop = { id: 'A-01-1', edge: ['n1', 'n2'], offset: 3.5 };
  const route = { walkways, stops: [stop], start: 'n1', end: 'n1' };
  const order = { id: 'S1', due: '2027-03-01T15:00:00Z', priority: 0, lines: [{ place: 'A-01-1', units: 2, weightG: 400, volumeMl: 900 }] };
  const rounds = {
    walkways,
    start: 'n1',
    end: 'n1',
    places: [stop],
    orders: [order],
    limits: { orders: 8, units: 45 },
    seconds: 0.1,
    seed: 1,
  };

  it('say the order of the stops, and what no walk can do without', () => {
    expect(solve('route', JSON.stringify(route))).toEqual({
      code: 0,
      output: { order: ['A-01-1'], metres: 7, optimal: true, lowerBound: 7 },
    });
    // A stop may name its edge from either end.
    const turned = { ...route, stops: [{ ...stop, edge: ['n2', 'n1'], offset: 8.5 }] };
    expect(solve('route', JSON.stringify(turned)).output).toMatchObject({ metres: 7 });
    expect(solve('route', JSON.stringify({ ...route, stops: [], end: 'n2' })).output).toMatchObject({
      order: [],
      metres: 12,
      optimal: true,
    });
  });

  it('say which orders go together, and the walk of each', () => {
    expect(solve('rounds', JSON.stringify(rounds))).toEqual({
      code: 0,
      output: { rounds: [{ orders: ['S1'], order: ['A-01-1'], metres: 7 }], metres: 7 },
    });
  });

  it.each([
    ['route', { ...route, stops: [stop, stop] }, 'stops[1].id'],
    ['route', { ...route, stops: [{ ...stop, offset: 13 }] }, 'stops[0].offset'],
    ['route', { ...route, stops: [{ ...stop, edge: ['n1', 'n3'] }] }, 'stops[0].edge[1]'],
    ['route', { ...route, start: 'n9' }, 'start'],
    ['route', { ...route, walkways: { ...walkways, nodes: [...walkways.nodes, { id: 'n3', x: 9, y: 9 }] }, end: 'n3' }, 'end'],
    ['rounds', { ...rounds, limits: { units: 1 } }, 'orders[0]'],
    ['rounds', { ...rounds, orders: [order, order] }, 'orders[1].id'],
    ['rounds', { ...rounds, orders: [{ ...order, lines: [{ place: 'B', units: 1 }] }] }, 'orders[0].lines[0].place'],
    ['rounds', { ...rounds, seconds: -1 }, 'seconds'],
  ])('name the member of %s at fault: %#', (name, faulty, path) => {
    expect(solve(name, JSON.stringify(faulty))).toMatchObject({ code: 1, output: { error: { path } } });
  });

  it('chooses boxes and places goods', () => {
    const box = { id: 'S', innerMm: [250, 170, 120], maxWeightG: 5000, tareG: 108, cost: 0.4, stock: 100 };
    const jar = { id: 'JAR', sizeMm: [80, 80, 110], weightG: 352, quantity: 6, keepUpright: true };
    const { output, code } = solve(
      'cartons',
      JSON.stringify({ boxes: [box], goods: [jar, { id: 'LONG', sizeMm: [900, 10, 10] }], seconds: 0.2 }),
    );
    expect(code).toBe(0);
    expect(output).toMatchObject({ parcels: [{ box: 'S', weightG: 2220 }], cost: 0.4, unplaced: [{ good: 'LONG', quantity: 1 }] });
    expect((output as { parcels: { placements: unknown[] }[] }).parcels[0]?.placements).toHaveLength(6);
  });

  it.each([
    [{ boxes: [{ id: 'S', innerMm: [1, 2] }], goods: [] }, 'boxes[0].innerMm'],
    [{ boxes: [{ id: 'S', innerMm: [1, 2, 0] }], goods: [] }, 'boxes[0].innerMm[2]'],
    [{ boxes: [{ id: 'S', innerMm: [1, 2, 3], cost: -1 }], goods: [] }, 'boxes[0].cost'],
    [{ boxes: [], goods: [{ id: 'A', sizeMm: [1, 1, 1], quantity: 1.5 }] }, 'goods[0].quantity'],
    [{ boxes: [], goods: [{ id: 'A', sizeMm: [1, 1, 1], keepUpright: 'no' }] }, 'goods[0].keepUpright'],
    [
      {
        boxes: [],
        goods: [
          { id: 'A', sizeMm: [1, 1, 1] },
          { id: 'A', sizeMm: [1, 1, 1] },
        ],
      },
      'goods[1].id',
    ],
    [{ boxes: [], goods: [], seconds: -1 }, 'seconds'],
  ])('names what is at fault in boxes and goods: %j', (input, path) => {
    expect(solve('cartons', JSON.stringify(input))).toMatchObject({ code: 1, output: { error: { path } } });
  });
});
