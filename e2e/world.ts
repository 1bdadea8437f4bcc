import { type Browser, type BrowserContext, expect, type Page, test } from '@playwright/test';

export const PORT = 4610;
export const BASE_URL = `http://127.0.0.1:${PORT}`;
export const OUTSIDE_URL = 'http://127.0.0.1:4710';
export const PASSWORD = 'thistle-and-tarn';

/** Closes what a file of journeys opened: pages that stay open go on reading, and slow down those that come after. */
export function closesItsPages(): void {
  test.afterAll(async ({ browser }) => {
    await Promise.all(browser.contexts().map((context) => context.close()));
  });
}

/** A desktop page with one of the demo's people signed in. */
export async function desktop(browser: Browser, who: string): Promise<Page> {
  const context = await browser.newContext({ baseURL: BASE_URL, viewport: { width: 1280, height: 800 } });
  await signIn(context, who);
  return context.newPage();
}

/** A phone with nobody signed in. */
export function phone(browser: Browser): Promise<BrowserContext> {
  return browser.newContext({ baseURL: BASE_URL, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
}

export async function signIn(context: BrowserContext, who: string, url = BASE_URL): Promise<void> {
  const answer = await context.request.post(`${url}/api/session`, {
    data: { email: `${who}@tarnthistle.example`, password: PASSWORD },
  });
  expect(answer.status()).toBe(204);
}

/**
 * Types a code as a wedge scanner does: real key events, one right after another, and Enter. They are sent without
 * waiting for each other, since a scanner does not wait either.
 */
export const scan = (page: Page, code: string): Promise<void> => scanKeys(page, [...code, 'Enter']);

/** A scanner's own pace. When a key was pressed is its keyboard's to say, however busy the machine is. */
const KEY_MS = 3;
/** When the last key of a scan was pressed. */
let pressedAt = 0;

/** The same with keys that are no characters, such as "F8" or "Ctrl+]". */
export async function scanKeys(page: Page, keys: readonly string[]): Promise<void> {
  const session = await page.context().newCDPSession(page);
  // All at once, as pressed just now: a pause of this program's between two keys would be none of the scanner's.
  const begun = Math.max(Date.now() - keys.length * KEY_MS, pressedAt + KEY_MS);
  pressedAt = begun + keys.length * KEY_MS;
  await Promise.all(
    keys.map((key, i) =>
      session.send('Input.dispatchKeyEvent', { type: 'keyDown', timestamp: (begun + i * KEY_MS) / 1000, ...eventOf(key) }),
    ),
  );
  await session.detach();
}

function eventOf(key: string) {
  if (key === 'Enter') return { key, code: key, text: '\r', windowsVirtualKeyCode: 13 };
  if (key.startsWith('Ctrl+')) return { key: key.slice(5), code: key === 'Ctrl+]' ? 'BracketRight' : '', modifiers: 2 };
  return key.length === 1 ? { key, text: key, unmodifiedText: key } : { key, code: key };
}

/** The band that answers a scan. */
export const band = (page: Page, kind: 'accepted' | 'not-this' | 'too-many' | 'unknown') => page.locator(`[data-band="${kind}"]`);

/** What the outside world believes. */
export async function outside(page: Page): Promise<{
  stock: Record<string, { units: number }>;
  orders: { order: { ref: string }; told: string; shipments: { tracking: string }[] }[];
  parcels: { parcel: string; tracking: string }[];
  mails: { to: string; subject: string; attachments: string[] }[];
  papers: { file: string }[];
  purchases: { order: string; supplier: string; said: string }[];
}> {
  return (await page.request.get(`${OUTSIDE_URL}/console/state`)).json() as never;
}

/** What lies on the scale at the packing table, in grams. */
export async function putOnScale(page: Page, grams: number): Promise<void> {
  await page.request.post(`${OUTSIDE_URL}/console/scale`, { data: { grams } });
}

/** What all goods of an order and the box that is chosen at its table should weigh, in grams. */
export async function rightWeight(bench: Page, code: string): Promise<number> {
  const task = await taskOf<{ lines: { unitG: number; picked: number }[]; cartons: { code: string; tareG: number }[] }>(
    bench,
    'pack',
    code,
  );
  const chosen = (await bench.getByRole('group', { name: 'Box' }).locator('[aria-pressed="true"]').innerText()).split(/\s/)[0];
  const box = task.cartons.find((c) => c.code === chosen);
  return task.lines.reduce((sum, l) => sum + l.unitG * l.picked, box?.tareG ?? 0);
}

export async function setManner(page: Page, part: string, manner: string): Promise<void> {
  await page.request.post(`${OUTSIDE_URL}/console/manners`, { data: { part, manner } });
}

/** Something goes wrong with a parcel that a carrier has; waits until the house has heard of it. */
export async function goesWrong(page: Page, tracking: string, what: string): Promise<void> {
  await page.request.post(`${OUTSIDE_URL}/console/parcels/${tracking}/trouble`, { data: { what } });
  await expect(async () => {
    const { rows } = await api<{ rows: { tracking: string }[] }>(page, 'claims');
    expect(rows.some((c) => c.tracking === tracking)).toBe(true);
  }).toPass({ timeout: 40_000 });
}

/** Buys in the web shop without its page. */
export async function buy(page: Page, lines: { sku: string; quantity: number }[], more: object = {}): Promise<string> {
  const answer = await page.request.post(`${OUTSIDE_URL}/console/orders`, { data: { customer: 'Wick Hill Farm', lines, ...more } });
  return ((await answer.json()) as { ref: string }).ref;
}

/** Our number of a shop's order, once it has come in. */
export async function orderOf(page: Page, ref: string): Promise<string> {
  let code = '';
  await expect(async () => {
    const found = (await (await page.request.get(`${BASE_URL}/api/find?q=${ref}`)).json()) as { found: { code: string }[] };
    code = found.found[0]?.code ?? '';
    expect(code).not.toBe('');
  }).toPass({ timeout: 40_000 });
  return code;
}

/** Sends an order to picking as the office does; returns its round. */
export async function sentToPicking(page: Page, order: string): Promise<string> {
  const { version } = await api<{ version: number }>(page, `orders/${order}`);
  const answer = await page.request.post(`${BASE_URL}/api/orders/${order}/release`, {
    data: {},
    headers: { 'idempotency-key': crypto.randomUUID(), 'if-match': `"${version}"` },
  });
  expect(answer.status()).toBe(200);
  return ((await answer.json()) as { round: string }).round;
}

interface BookItem {
  id: number;
  sku: string;
  name: string;
  tracking: string;
  packs: { id: number; factor: number }[];
  codes: { code: string; packId: number }[];
}

/** What the floor knows of a site's items: by number, with their codes. */
export async function itemsOf(page: Page, siteId = 1): Promise<Map<number, BookItem>> {
  const { items } = await api<{ items: BookItem[] }>(page, `floor/book?site=${siteId}&since=0`);
  return new Map(items.map((item) => [item.id, item]));
}

/** A task of the floor as it stands. */
export async function taskOf<T>(page: Page, kind: string, key: string | number): Promise<T> {
  return (await api<{ task: T }>(page, `floor/tasks/${kind}/${key}`)).task;
}

export async function api<T>(page: Page, path: string): Promise<T> {
  const answer = await page.request.get(`${BASE_URL}/api/${path}`);
  expect(answer.status()).toBe(200);
  return answer.json() as Promise<T>;
}

/** An order as somebody rang for it; returns its number. */
export async function keyOrder(
  page: Page,
  lines: { sku: string; quantity: number; price: string; factor?: number }[],
  more: object = {},
): Promise<string> {
  const answer = await page.request.post(`${BASE_URL}/api/orders`, {
    headers: { 'idempotency-key': crypto.randomUUID() },
    data: {
      customer: 'Moorfoot Honey Co.',
      email: 'orders@moorfoot.example',
      phone: '01632 960 155',
      addressLine: '18 Quarry Bank',
      city: 'Stanmoor',
      postcode: 'SM2 9DD',
      country: 'GB',
      siteId: 1,
      promisedAt: null,
      speed: 'standard',
      priority: 0,
      wholeOnly: false,
      notePacker: '',
      notePicker: '',
      ref: '',
      quote: false,
      lines: lines.map(({ quantity, factor = 1, ...line }) => ({ ...line, factor, quantity: String(quantity) })),
      ...more,
    },
  });
  expect(answer.status()).toBe(201);
  return ((await answer.json()) as { code: string }).code;
}

/** Something done on the floor without its screens. */
export async function does(page: Page, command: object): Promise<void> {
  const id = crypto.randomUUID();
  const { id: madeBy } = await api<{ id: number }>(page, 'session');
  const answer = await page.request.post(`${BASE_URL}/api/floor/commands`, {
    data: { command: { ...command, id }, madeAt: new Date().toISOString(), madeBy, late: false },
    headers: { 'idempotency-key': id },
  });
  expect(answer.ok(), await answer.text()).toBe(true);
}

export async function placeId(page: Page, code: string): Promise<number> {
  const { places } = await api<{ places: { id: number; code: string }[] }>(page, 'floor/book?site=1&since=0');
  return places.find((p) => p.code === code)!.id;
}

/** A whole round, picked into a tote and set down at a table. */
export async function picked(page: Page, round: string, tote: string): Promise<void> {
  type Stop = { id: number; itemId: number; lotId: number; placeId: number; units: number };
  const { stops } = await taskOf<{ stops: Stop[] }>(page, 'pick', round);
  const totePlaceId = await placeId(page, tote);
  for (const { id: stopId, itemId, lotId, placeId: fromPlaceId, units } of stops)
    await does(page, { kind: 'pick', round, stopId, itemId, lotId, fromPlaceId, units, totePlaceId, how: 'scanned' });
  await does(page, { kind: 'set-down', round, placeId: await placeId(page, 'TABLE-1') });
}
