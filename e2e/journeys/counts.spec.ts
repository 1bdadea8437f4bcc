import { expect, test } from '@playwright/test';
import { api, band, closesItsPages, desktop, itemsOf, phone, scan, signIn, taskOf } from '../world.js';

closesItsPages();

interface Task {
  bins: { placeId: number; code: string; lines: { itemId: number; lot: string | null }[] }[];
}

test('an aisle is counted on a phone, a bin with too few is found to lie next door, and the books follow', async ({ browser }) => {
  const desk = await desktop(browser, 'maren');
  await desk.goto('/shelves/counts/new');
  await desk.getByRole('checkbox', { name: /^H / }).check();
  await expect(desk.getByText(/^48 bins with/)).toBeVisible();
  await desk.getByLabel('Called').fill('Aisle H before the fair');
  await desk.getByRole('button', { name: 'Draw it up' }).click();
  await expect(desk.getByRole('heading', { name: 'Aisle H before the fair' })).toBeVisible();
  const code = desk.url().split('/').at(-1)!;
  await desk.getByRole('checkbox', { name: 'Joss Arkle' }).check();
  await desk.getByRole('button', { name: 'Share the bins out' }).click();
  await expect(desk.getByText('Joss Arkle').nth(1)).toBeVisible();
  await desk.getByRole('button', { name: 'Open it to phones' }).click();
  await expect(desk.getByRole('complementary').getByText('being counted')).toBeVisible();

  const { bins } = await taskOf<Task>(desk, 'tally', code);
  const items = await itemsOf(desk);
  const plain = (line: { lot: string | null }) => line.lot === null;
  const full = bins.find((b) => b.lines.length === 1 && b.lines.every(plain))!;
  const next = bins.find((b) => b.lines.length === 0)!;
  const line = full.lines[0]!;
  const { codes, packs } = items.get(line.itemId)!;
  const piece = codes.find((c) => c.packId === packs.find((p) => p.factor === 1)!.id)!.code;

  const device = await phone(browser);
  await signIn(device, 'joss');
  const floor = await device.newPage();
  await floor.goto('/floor/count');
  await floor.getByRole('link', { name: /Aisle H before the fair/ }).tap();
  await expect(floor.getByRole('heading', { name: 'Scan the bin' })).toBeVisible();
  await scan(floor, piece);
  await expect(band(floor, 'not-this')).toContainText('Scan the bin first');
  await scan(floor, 'A-01-1');
  await expect(band(floor, 'not-this')).toContainText('It is not in this count');

  // Bin, goods, number: three inputs a line. An empty bin is one.
  await scan(floor, full.code);
  await scan(floor, piece);
  await expect(floor.getByText(/ so far/).first()).toBeVisible();
  await floor.getByRole('button', { name: 'Number' }).tap();
  await floor.getByRole('button', { name: '3', exact: true }).tap();
  await floor.getByRole('button', { name: / there$/ }).tap();
  await expect(band(floor, 'accepted')).toContainText('counted in');
  await scan(floor, next.code);
  await expect(band(floor, 'accepted')).toContainText(`${full.code} is counted`);
  await floor.getByRole('button', { name: 'It is empty' }).tap();
  await expect(band(floor, 'accepted')).toContainText(`${next.code} is empty`);
  await floor.getByRole('button', { name: 'Empty', exact: true }).tap();
  await expect(band(floor, 'accepted')).toContainText('is empty');

  // What was too few in the one is found in the other, and counted on top of nothing.
  const found = await api<{ rows: { sku: string; place: string; expected: number; counted: number }[] }>(
    desk,
    `counts/${code}/review?shows=off`,
  );
  const short = found.rows.find((r) => r.place === full.code)!;
  expect(short.counted).toBe(3);
  await scan(floor, next.code);
  await expect(band(floor, 'accepted')).toContainText('Counted already');
  await scan(floor, piece);
  await floor.getByRole('button', { name: 'Number' }).tap();
  for (const digit of String(short.expected - 3)) await floor.getByRole('button', { name: digit, exact: true }).tap();
  await floor.getByRole('button', { name: / there$/ }).tap();
  await expect(band(floor, 'accepted')).toContainText(`counted in ${next.code}`);
  await expect(async () => {
    const { rows } = await api<{ rows: { place: string }[] }>(desk, `counts/${code}/review?shows=off`);
    expect(rows.filter((r) => r.place === next.code)).toHaveLength(1);
  }).toPass();
  await device.close();

  await desk.getByRole('button', { name: /^Counting is over, without/ }).click();
  await desk.getByRole('link', { name: /^Decide/ }).click();
  const row = desk.getByRole('row').filter({ has: desk.getByRole('checkbox', { name: new RegExp(`in ${full.code}$`) }) });
  await expect(row).toContainText('they may lie in the wrong bin');
  await row.getByRole('button', { name: 'Move them in the books' }).click();
  await expect(row).toHaveCount(0);
  // Whatever else was said to be empty and was not is let go, and the count is closed.
  if (await desk.getByRole('checkbox', { name: 'All lines that are to be decided' }).isVisible()) {
    await desk.getByRole('checkbox', { name: 'All lines that are to be decided' }).check();
    await desk.getByRole('button', { name: 'Let go' }).click();
    await desk.getByRole('textbox', { name: 'Why nothing comes of it' }).fill('only tried');
    await desk.getByRole('button', { name: 'Let go' }).last().click();
  }
  await expect(desk.getByText('closed', { exact: true })).toBeVisible();
  await desk.goto('/shelves/counts/accuracy?by=person');
  await expect(desk.getByRole('cell', { name: 'Joss Arkle' })).toBeVisible();
});
