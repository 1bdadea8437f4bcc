import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { chromium, expect, type Page, test } from '@playwright/test';
import { filmOf } from '../film.js';
import { api, desktop, itemsOf, phone, scan, signIn, taskOf } from '../world.js';

const DIR = resolve(import.meta.dirname, '../../docs/screenshots');
const SETTLE_MS = 900;

async function shoot(page: Page, name: string): Promise<void> {
  await page.waitForTimeout(SETTLE_MS);
  await page.screenshot({ path: `${DIR}/${name}.png` });
}

test('office', async ({ browser }) => {
  const page = await desktop(browser, 'maren');
  await page.waitForTimeout(6_000);
  await page.goto('/');
  await shoot(page, 'now');
  const { rows: orders } = await api<{ rows: { code: string; stock: string[]; state: string }[] }>(page, 'orders');
  const short = orders.find((o) => o.state === 'open' && o.stock.length > 2 && o.stock.includes('none')) ?? orders[0]!;
  await page.goto(`/orders/${short.code}`);
  await page.locator('.sheet [data-why]').first().click();
  await shoot(page, 'order');
  await page.goto('/shelves/counts/N-0003/review');
  await expect(page.getByText('they may lie in the wrong bin').first()).toBeVisible();
  await shoot(page, 'count');
  const { arrivals } = await api<{ arrivals: string[] }>(page, 'purchase-orders/P-1180');
  await page.goto(`/inbound/arrivals/${arrivals[0]}`);
  await page.locator('.sheet [data-why]').first().click();
  await shoot(page, 'arrival');
  await page.goto('/books/invoices/I-0003');
  await shoot(page, 'invoice');
  await page.goto('/orders');
  await shoot(page, 'orders');
  await page.goto('/plan/items/JAR-454-RD');
  await expect(page.getByRole('region', { name: 'Demand' }).locator('svg')).toBeVisible();
  await shoot(page, 'buying');
  await page.goto('/shelves/plan');
  await shoot(page, 'plan');
  await page.goto('/setup/labels/1');
  await expect(page.locator('canvas[data-drawn]')).toBeVisible();
  await shoot(page, 'label');
  await page.goto('/setup/imports');
  await page.getByLabel('Files to take in').setInputFiles(resolve(import.meta.dirname, '../../docs/samples/items-with-faults.csv'));
  await page.getByRole('button', { name: 'Check 6 rows' }).click();
  await expect(page.getByRole('heading', { name: '5 faulty rows' })).toBeVisible();
  await shoot(page, 'import');
  await page.goto('/picking/release');
  await page.getByRole('button', { name: 'Propose rounds' }).click();
  await expect(page.getByRole('button', { name: /^Send/ })).toBeEnabled({ timeout: 40_000 });
  await page
    .getByRole('button', { name: /^\d+ orders, / })
    .nth(1)
    .click();
  await shoot(page, 'picking');
  await page.goto('/orders/returns/G-0002');
  await shoot(page, 'return');
  await page.goto('/dispatch');
  await expect(page.getByRole('heading', { name: 'Handed over' })).toBeVisible();
  await shoot(page, 'dispatch');
});

test('bench', async ({ browser }) => {
  const page = await desktop(browser, 'dilys');
  await page.goto('/bench');
  const { rows: queue } = await api<{ rows: { order: string; note: boolean }[] }>(page, 'bench/queue');
  const order = (queue.find((o) => o.note) ?? queue[0]!).order;
  await page.goto(`/bench/${order}`);
  await expect(page.getByText('to go of')).toBeVisible();
  const task = await taskOf<{ lines: { itemId: number }[] }>(page, 'pack', order);
  await scan(page, (await itemsOf(page)).get(task.lines[0]!.itemId)!.sku);
  await page.waitForTimeout(2_500);
  await shoot(page, 'bench');
});

test('floor', async ({ browser }) => {
  const dock = await phone(browser);
  await signIn(dock, 'ruben');
  const receive = await dock.newPage();
  await receive.goto('/floor/receive/P-1180');
  await expect(receive.getByText('Scan the goods')).toBeVisible();
  await scan(receive, '19521077000024');
  await receive.getByRole('button', { name: '8', exact: true }).tap();
  await receive.waitForTimeout(2_200);
  await shoot(receive, 'floor-receive');
  await receive.goto('/floor/store');
  await expect(receive.getByText('Scan the goods')).toBeVisible();
  // The network is gone: what is scanned is kept on the phone.
  await dock.setOffline(true);
  await scan(receive, 'JAR-227-RD');
  const bin = await receive.locator('.bin').getAttribute('aria-label');
  await scan(receive, /^Bin (\S+):/.exec(bin ?? '')?.[1] ?? '');
  await scan(receive, 'JAR-454-RD');
  await receive.waitForTimeout(2_200);
  await shoot(receive, 'floor-put-away');
  await dock.setOffline(false);
  const aisle = await phone(browser);
  await signIn(aisle, 'ines');
  const pick = await aisle.newPage();
  const { rows: rounds } = await api<{ rows: { code: string; state: string; mine: boolean }[] }>(pick, 'rounds');
  await pick.goto(`/floor/pick/${rounds.find((r) => r.state === 'picking' && r.mine)!.code}`);
  await expect(pick.locator('.bin')).toBeVisible();
  await shoot(pick, 'floor-pick');
  const wall = await desktop(browser, 'ines');
  const { rows: pooled } = await api<{ rows: { code: string; pooled: boolean }[] }>(wall, 'rounds');
  const round = pooled.find((r) => r.pooled)!.code;
  const { goods } = await taskOf<{ goods: { itemId: number; units: number }[] }>(wall, 'sort', round);
  await wall.goto(`/floor/sort/${round}`);
  await expect(wall.getByText('Scan the goods')).toBeVisible();
  await scan(wall, (await itemsOf(wall)).get(goods.find((g) => g.units > 1)!.itemId)!.sku);
  await wall.waitForTimeout(2_200);
  await shoot(wall, 'wall');
});

test('camera', async () => {
  const film = join(tmpdir(), 'wrong-label.y4m');
  await filmOf(film, [{ text: 'STR-ROLL', format: 'Code128' }]);
  const { executablePath, args = [] } = test.info().project.use.launchOptions ?? {};
  const fake = ['--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream', `--use-file-for-fake-video-capture=${film}`];
  const browser = await chromium.launch({ ...(executablePath ? { executablePath } : {}), args: [...args, ...fake] });
  const aisle = await phone(browser);
  await signIn(aisle, 'ines');
  const pick = await aisle.newPage();
  const { rows: rounds } = await api<{ rows: { code: string; state: string; mine: boolean }[] }>(pick, 'rounds');
  await pick.goto(`/floor/pick/${rounds.find((r) => r.state === 'picking' && r.mine)!.code}`);
  await pick.getByRole('button', { name: 'Camera' }).tap();
  await expect(pick.locator('[data-band="not-this"]')).toBeVisible({ timeout: 20_000 });
  await pick.screenshot({ path: `${DIR}/floor-camera.png` });
  await browser.close();
  rmSync(film);
});
