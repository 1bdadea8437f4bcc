import { createHmac } from 'node:crypto';
import { appendFileSync } from 'node:fs';
import { type Browser, expect, type Page, test } from '@playwright/test';
import { EmptyHouse, ROOT } from '../empty-house.js';
import { api, BASE_URL, signIn } from '../world.js';
import { axeFaults, type Face, layoutFaults, listen } from './checks.js';
import { allowedAt, type Known, publicStates, type State, statesOf } from './states.js';

const { screens } = (await import(`${ROOT}/scripts/lib/screens.mjs`)) as { screens: () => { path: string }[] };
const ROUTES = screens().map((s) => s.path);

/** Screens as people have them: a desk, a large one, a tablet, a desk at 200 %, phones upright and on their side. */
const SIZES: Readonly<Record<Face, readonly (readonly [width: number, height: number])[]>> = {
  office: [
    [1280, 800],
    [1440, 900],
    [820, 1180],
    [640, 400],
    [390, 844],
  ],
  floor: [
    [390, 844],
    [360, 640],
    [740, 360],
  ],
};
/** What a house without records shows is little: the widest and the narrowest say all of it. */
const ENDS: typeof SIZES = {
  office: [
    [1280, 800],
    [390, 844],
  ],
  floor: [[360, 640]],
};
/** What was found, a line each. */
const FOUND = `${ROOT}/.cache/sweep.log`;
const LONG = 'Interminably Named Consolidated Provisions of the Upper Netherwick Valley Cooperative';

/** Opens a state and waits until it stands: nothing loads, nothing moves. */
async function open(page: Page, url: string, state: State): Promise<void> {
  await page.goto(`${url}${state.at}`);
  await page.locator('main').first().waitFor({ timeout: 30_000 });
  await expect(page.locator('[aria-label="Loading"]')).toHaveCount(0, { timeout: 30_000 });
  await page.waitForTimeout(120);
  // A sheet that is still coming in is half seen through, and its words are paler than they will be.
  await page.evaluate(() =>
    Promise.all(
      document
        .getAnimations()
        .filter((a) => a.effect?.getComputedTiming().iterations !== Infinity)
        .map((a) => a.finished.catch(() => undefined)),
    ),
  );
}

/** Everything that is wrong with a state at every size, in light and in forced colours. */
async function faultsOf(page: Page, url: string, state: State, heard: ReturnType<typeof listen>, sizes = SIZES): Promise<string[]> {
  const faults: string[] = [];
  const note = (where: string, list: readonly string[]) => faults.push(...list.map((f) => `${state.at} ${where}: ${f}`));
  const [first, ...others] = (state.at.includes('NOT-THERE') ? ENDS : sizes)[state.face];
  await page.setViewportSize({ width: first![0], height: first![1] });
  await open(page, url, state);
  note('', heard.take());
  note(`${first![0]}`, await layoutFaults(page, state.face));
  note('axe', await axeFaults(page));
  for (const [width, height] of others) {
    await page.setViewportSize({ width, height });
    await page.waitForTimeout(30);
    note(`${width}×${height}`, await layoutFaults(page, state.face));
  }
  await page.emulateMedia({ forcedColors: 'active' });
  note('forced colours', await layoutFaults(page, state.face));
  await page.emulateMedia({ forcedColors: 'none' });
  note('', heard.take());
  return faults;
}

/** Looks at states with two pages of one browser, each taking the next: while one waits for its answers the other is laid out. */
async function sweep(page: Page, url: string, states: readonly State[], sizes = SIZES): Promise<void> {
  const waiting = [...states];
  const faults: string[] = [];
  const look = async (own: Page) => {
    const heard = listen(own, allowedAt);
    for (let state = waiting.shift(); state; state = waiting.shift()) {
      const begun = Date.now();
      const { at } = state;
      const found = await faultsOf(own, url, state, heard, sizes).catch((thrown: unknown) => [`${at}: ${String(thrown).slice(0, 300)}`]);
      // Kept as they come, so that a long sweep can be read while it runs.
      appendFileSync(FOUND, found.map((f) => `${f}\n`).join(''));
      faults.push(...found);
      if (process.env['SWEEP_TIMES']) console.log(at, Date.now() - begun);
    }
  };
  await Promise.all([look(page), look(await page.context().newPage())]);
  expect(faults, faults.join('\n')).toEqual([]);
}

async function signedIn(browser: Browser): Promise<Page> {
  const context = await browser.newContext({ baseURL: BASE_URL });
  await signIn(context, 'maren');
  return context.newPage();
}

/** A record of each kind that the demo has, for the routes that open one. */
async function knownIn(page: Page): Promise<Known> {
  const first = async (path: string, pick: (row: never) => unknown) => {
    const list = await api<never[] | { rows: never[] }>(page, path);
    const row = (Array.isArray(list) ? list : list.rows)[0];
    return row === undefined ? undefined : String(pick(row));
  };
  const code = (row: { code: string }) => row.code;
  const wanted: Record<string, Promise<string | undefined>> = {
    '/inbound/suppliers/:code': first('suppliers', code),
    '/inbound/bills/:code': first('bills', code),
    '/inbound/returns/:code': first('supplier-returns', code),
    '/inbound/inspection/checklists/:id': first('checklists', (c: { id: number }) => c.id),
    '/inbound/inspection/:code': first('inspections', code),
    '/inbound/arrivals/:code': first('arrivals', code),
    '/inbound/:code': first('purchase-orders', code),
    '/shelves/items/:sku': first('items?limit=1&from=0', (i: { sku: string }) => i.sku),
    '/shelves/places/:code': first('places?limit=1&from=0&kind=pick-face', code),
    '/shelves/counts/:code': first('counts', code),
    '/shelves/counts/:code/review': first('counts', code),
    '/shelves/transfers/:code': first('transfers', code),
    '/shelves/builds/:code': first('builds', code),
    '/floor/tally/:code': api<{ rows: { code: string; state: string }[] }>(page, 'counts').then(
      ({ rows }) => rows.find((c) => c.state === 'open')?.code,
    ),
    '/floor/gather/:code': api<{ rows: { code: string; state: string }[] }>(page, 'transfers').then(
      ({ rows }) => rows.find((t) => t.state === 'requested')?.code,
    ),
    '/floor/take-in/:code': api<{ rows: { code: string; state: string }[] }>(page, 'transfers').then(
      ({ rows }) => rows.find((t) => t.state === 'on-the-road')?.code,
    ),
    '/floor/move/:code': first('places?limit=1&from=0&kind=pick-face', code),
    '/plan/items/:sku': Promise.resolve('JAR-454-RD'),
    '/orders/customers/:code': first('customers', code),
    '/orders/unread/:id': first('parked-messages', (m: { id: number }) => m.id),
    '/inbound/unread/:id': first('unread-documents', (d: { id: number }) => d.id),
    '/orders/:code': first('orders', code),
    '/orders/returns/:code': first('customer-returns', code),
    '/orders/claims/:id': first('claims', (c: { id: number }) => c.id),
    '/books/invoices/:code': first('invoices', code),
    '/setup/letters/:name': first('letters', (l: { name: string }) => l.name),
    '/floor/returns/:code': first('customer-returns', code),
    '/floor/pack/:code': first('bench/queue', (o: { order: string }) => o.order),
    '/floor/load/:key': first('dispatch/lanes', (l: { siteId: number; carrier: string }) => `${l.siteId}-${l.carrier}`),
    '/setup/people/:id': first('people', (p: { id: number }) => p.id),
    '/setup/imports/:id': first('imports', (r: { id: string }) => r.id),
    '/setup/labels/:id': first('labels/designs', (d: { id: number }) => d.id),
    '/setup/channels/:code': first('channels', code),
    '/setup/channels/:code/catalogue': Promise.resolve('SHOP'),
    '/setup/carriers/:code': first('carriers', code),
    '/setup/boxes/:code': first('boxes', code),
    '/floor/receive/:code': first('floor/receive', code),
    '/floor/pick/:code': first('rounds', code),
    '/picking/:code': first('rounds', code),
    '/picking/runs/:id': api<{ runs: { id: number }[] }>(page, 'daily-runs').then(({ runs: [run] }) => run && String(run.id)),
    '/floor/sort/:code': api<{ rows: { code: string; pooled: boolean; state: string }[] }>(page, 'rounds').then(
      ({ rows }) => rows.find((r) => r.pooled && r.state === 'set-down')?.code,
    ),
    '/bench/:code?': first('bench/queue', (o: { order: string }) => o.order),
  };
  const entries = await Promise.all(Object.entries(wanted).map(async ([route, found]) => [route, await found] as const));
  return Object.fromEntries(entries.flatMap(([route, found]) => (found === undefined ? [] : [[route, found]])));
}

/** Records with names as long as they may be, and one of each kind that the demo has none of, so that every list and sheet has met one. */
async function furnish(page: Page): Promise<void> {
  const post = (path: string, data: object) =>
    page.request.post(`${BASE_URL}/api/${path}`, { data, headers: { 'idempotency-key': crypto.randomUUID() } });
  const item = { sku: 'LONG-NAMED-THING-0123456789-0123456789', name: `Reversible ${LONG}`.slice(0, 120), className: LONG.slice(0, 40) };
  const pack = { name: 'consolidated bundle', plural: 'consolidated bundles', factor: 1, barcodes: [] };
  await post('items', { ...item, picture: 'box', tracking: 'none', rotation: 'fifo', neverHoldsUp: false, packs: [pack] });
  await post('suppliers', {
    code: 'LONGNAMEDSUPPLIER-01',
    name: LONG,
    email: 'orders-and-enquiries@longnamed.example',
    phone: '01632 960 999 ext. 12345',
    currency: 'GBP',
    leadDays: 14,
  });
  await post('customers', {
    code: 'LONGNAMEDCUSTOMER-01',
    name: LONG,
    email: '',
    phone: '',
    addressLine: LONG,
    city: 'Llanfair-upon-the-Water',
    postcode: 'ZZ99 9ZZ',
    country: 'GB',
    note: LONG,
    termsDays: 30,
    wholeOnly: false,
    addresses: [{ name: LONG.slice(0, 80), addressLine: LONG, city: 'Llanfair-upon-the-Water', postcode: 'ZZ99 9ZZ', country: 'GB' }],
    prices: [],
  });
  const said = LONG.slice(0, 120);
  await post('counts', { siteId: 1, by: 'bins', words: ['H-01-1', 'H-01-2'], most: 9, title: said, blind: true, scanEach: false });
  await post('transfers', { fromSiteId: 1, toSiteId: 2, note: said, lines: [{ sku: item.sku, units: 1_000_000 }] });
  await post('builds', { siteId: 1, sku: 'NUC-STD', units: 1_000, note: said });
  await post('channels', { code: 'LONGNAMED', name: LONG.slice(0, 80), kind: 'web-shop', siteId: 1, baseUrl: null, listings: [] });
  const { secret } = (await (await post('channels/LONGNAMED/secret', {})).json()) as { secret: string };
  const odd = JSON.stringify({
    ref: 'LONG-NAMED-REFERENCE-0123456789-0123456789',
    customer: LONG,
    lines: [{ sku: LONG, quantity: 'a dozen' }],
  });
  await page.request.post(`${BASE_URL}/api/channels/LONGNAMED/webhook`, {
    data: odd,
    headers: { 'content-type': 'application/json', 'x-signature': createHmac('sha256', secret).update(odd).digest('hex') },
  });
  const { orders } = await api<{ orders: string[] }>(page, 'bills/open?supplier=QUILLON');
  const charges = [{ order: orders[0], says: `Freight of the ${LONG}`.slice(0, 60), amount: '45.00', by: 'value' }];
  await post('bills', { supplier: 'QUILLON', ref: 'F-1', billedOn: new Date().toISOString().slice(0, 10), note: LONG, goods: [], charges });
  const key = ((await (await post('suppliers/LONGNAMEDSUPPLIER-01/document-key', {})).json()) as { key: string }).key;
  const document = `<Order><!-- ${LONG} -->${LONG}</Order>`;
  await page.request.post(`${BASE_URL}/api/suppliers/LONGNAMEDSUPPLIER-01/documents`, {
    data: document,
    headers: { 'content-type': 'application/xml', 'x-signature': createHmac('sha256', key).update(document).digest('hex') },
  });
  await page.request.post(`${BASE_URL}/api/imports?name=${encodeURIComponent(LONG)}.csv&kind=items`, {
    data: Buffer.from('SKU,Name,Cost\nA-1,Thing,-4\n'),
    headers: { 'idempotency-key': crypto.randomUUID(), 'content-type': 'application/octet-stream' },
  });
}

test('every route of the router is looked at', async ({ browser }) => {
  const page = await signedIn(browser);
  await furnish(page);
  const states = [...publicStates(ROUTES), ...statesOf(ROUTES, await knownIn(page))];
  const seen = new Set(states.filter((s) => !s.at.includes('NOT-THERE')).map((s) => s.route));
  expect(ROUTES.filter((route) => !seen.has(route))).toEqual([]);
  await page.context().close();
});

/** The faces are looked at apart, so that what is wrong with one does not hide the other. */
for (const [part, of] of [
  ['inbound', (s: State) => s.route.startsWith('/inbound')],
  ['shelves', (s: State) => s.route.startsWith('/shelves')],
  ['set-up', (s: State) => s.route.startsWith('/setup')],
  ['planning', (s: State) => s.route.startsWith('/plan')],
  ['the other stages', (s: State) => !/^\/(inbound|shelves|setup|plan|floor|bench)/.test(s.route)],
  ['the floor and the table', (s: State) => /^\/(floor|bench)/.test(s.route)],
] as const) {
  test(`screens hold still: ${part}`, async ({ browser }) => {
    test.setTimeout(900_000);
    const page = await signedIn(browser);
    await furnish(page);
    await sweep(page, BASE_URL, statesOf(ROUTES, await knownIn(page)).filter(of));
    await page.context().close();
  });
}

test('screens hold still: the way in', async ({ browser }) => {
  const page = await (await browser.newContext()).newPage();
  await sweep(
    page,
    BASE_URL,
    publicStates(ROUTES).filter((s) => s.route !== '/first-run'),
  );
  await page.context().close();
});

test('screens hold still in an empty house', async ({ browser }) => {
  test.setTimeout(900_000);
  const house = await EmptyHouse.open('sweep', 4650);
  try {
    const page = await (await browser.newContext()).newPage();
    await sweep(page, house.url, publicStates(['/first-run']));
    await house.found(page.request);
    await sweep(
      page,
      house.url,
      statesOf(ROUTES, {}).filter((s) => !s.at.includes('NOT-THERE')),
      ENDS,
    );
    await page.context().close();
  } finally {
    await house.close();
  }
});
