import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Browser, chromium, expect, type Page, test } from '@playwright/test';
import { filmOf } from '../film.js';
import { api, buy, closesItsPages, desktop, itemsOf, orderOf, phone, sentToPicking, signIn, taskOf } from '../world.js';

closesItsPages();

const SKU = 'JAR-454-RD';
const dir = mkdtempSync(join(tmpdir(), 'film-'));
let office: Page;
let launched: Browser | undefined;

test.beforeAll(async ({ browser }) => {
  office = await desktop(browser, 'maren');
});
test.afterEach(async () => {
  await launched?.close();
  launched = undefined;
});
test.afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** A phone's page in a browser of its own, with the camera that these arguments give it. */
async function phoneWith(args: string[], path: string): Promise<Page> {
  const { executablePath, args: usual = [] } = test.info().project.use.launchOptions ?? {};
  launched = await chromium.launch({ ...(executablePath ? { executablePath } : {}), args: [...usual, ...args] });
  const context = await phone(launched);
  await signIn(context, 'ines');
  const page = await context.newPage();
  await page.goto(path);
  return page;
}

test('a whole round is picked by the camera alone', async () => {
  const order = await orderOf(office, await buy(office, [{ sku: SKU, quantity: 2 }]));
  const round = await sentToPicking(office, order);
  const { stops } = await taskOf<{ stops: { placeCode: string; units: number }[] }>(office, 'pick', round);
  const item = [...(await itemsOf(office)).values()].find((i) => i.sku === SKU)!;
  const gtin = item.codes.find((c) => /^0\d{13}$/.test(c.code))!.code;
  const goods = [
    { text: gtin.slice(1), format: 'EAN13' },
    { text: `(01)${gtin}(10)ANY-7(30)1`, format: 'DataMatrix', gs1: true },
  ] as const;
  await filmOf(join(dir, 'round.y4m'), [
    { text: 'T-34', format: 'QRCode' },
    ...stops.flatMap(({ placeCode, units }) => [
      { text: placeCode, format: 'Code128' } as const,
      ...Array.from({ length: units }, (_, n) => goods[n % 2]!),
      { text: 'T-34', format: 'Code128' } as const,
    ]),
    { text: 'TABLE-1', format: 'Code128' },
  ]);
  const floor = await phoneWith(
    ['--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream', `--use-file-for-fake-video-capture=${join(dir, 'round.y4m')}`],
    `/floor/pick/${round}`,
  );
  await expect(floor.getByText('Scan an empty tote')).toBeVisible();
  await floor.getByRole('button', { name: 'Camera' }).tap();
  await expect(floor.getByText('Set down. Ready to pack')).toBeVisible({ timeout: 60_000 });
  await expect(floor.getByRole('region', { name: 'Camera' })).toBeVisible();
  await expect(async () => expect(await api<object>(office, `orders/${order}`)).toMatchObject({ state: 'picked' })).toPass();
  const times = await floor.evaluate(() => performance.getEntriesByName('scan-feedback').map((e) => e.duration));
  const sorted = times.sort((a, b) => a - b);
  console.log(
    `from the camera's picture to the band over ${sorted.length} labels: median ${sorted[Math.floor(sorted.length / 2)]?.toFixed(1)} ms, longest ${sorted.at(-1)?.toFixed(1)} ms`,
  );
});

test('a camera that is refused says how to allow it, and codes can still be typed', async () => {
  const floor = await phoneWith(['--use-fake-device-for-media-stream', '--deny-permission-prompts'], '/floor/pick');
  await floor.getByRole('button', { name: 'Camera' }).tap();
  await expect(floor.getByRole('alert')).toContainText('This page may not use the camera');
  await floor.getByRole('button', { name: 'Close camera' }).tap();
  await expect(floor.getByRole('button', { name: 'Type code' })).toBeVisible();
});

test('a device without a camera is told so', async () => {
  const floor = await phoneWith(['--use-fake-ui-for-media-stream'], '/floor/pick');
  await floor.getByRole('button', { name: 'Camera' }).tap();
  await expect(floor.getByRole('alert')).toContainText('no camera');
});
