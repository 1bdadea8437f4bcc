import { expect, test } from '@playwright/test';
import { api, band, closesItsPages, desktop, itemsOf, phone, scan, signIn, taskOf } from '../world.js';

closesItsPages();

test('a lot is found by how it begins, held everywhere at once, and freed again', async ({ browser }) => {
  const desk = await desktop(browser, 'maren');
  await desk.goto('/shelves/trace');
  await desk.getByRole('searchbox', { name: 'Lot or serial number' }).fill('L26');
  await desk
    .getByRole('row', { name: /THY-GEL/ })
    .getByRole('link')
    .click();
  await expect(desk.getByText('Where it came from')).toBeVisible();
  await expect(desk.getByText(/are here, \d+ (is|are) with customers/)).toBeVisible();
  const { searchParams } = new URL(desk.url());
  await desk.getByRole('textbox', { name: 'Why it is held' }).fill('the seal is broken');
  await desk.getByRole('button', { name: 'Hold it everywhere' }).click();
  await expect(desk.getByText(/Held everywhere: the seal is broken/).first()).toBeVisible();
  await expect(desk.getByRole('table', { name: 'Where it is' }).getByText('held').first()).toBeVisible();
  const document = await api<{ type: string }>(desk, `trace/epcis.json?sku=${searchParams.get('sku')}&lot=${searchParams.get('lot')}`);
  expect(document.type).toBe('EPCISDocument');
  await desk.getByRole('button', { name: 'Nothing is wrong with it: free it again' }).click();
  await expect(desk.getByRole('textbox', { name: 'Why it is held' })).toBeVisible();
  await expect(desk.getByRole('table', { name: 'Where it is' }).getByText('good').first()).toBeVisible();
});

test('an assembly is planned, its parts are gathered with a phone, and it is worth what went into it', async ({ browser }) => {
  const desk = await desktop(browser, 'maren');
  await desk.goto('/shelves/builds/new');
  const what = desk.getByRole('combobox', { name: 'What, and where' });
  await what.selectOption({ label: 'Nucleus stand, Millrace' });
  await desk.getByRole('textbox', { name: 'How many' }).fill('2');
  await desk.getByRole('button', { name: 'Plan it' }).click();
  await desk.waitForURL('**/shelves/builds/K-*');
  await expect(desk.getByRole('button', { name: 'Call it off' })).toBeVisible();
  const code = desk.url().split('/').at(-1)!;
  const { lines } = await taskOf<{ lines: { lineId: number; itemId: number; units: number; bins: { code: string }[] }[] }>(
    desk,
    'gather',
    code,
  );
  const items = await itemsOf(desk);
  const device = await phone(browser);
  await signIn(device, 'ines');
  const floor = await device.newPage();
  await floor.goto('/floor');
  await expect(floor.getByRole('heading', { name: 'Scan a paper, or choose' })).toBeVisible();
  await scan(floor, code);
  await expect(floor.getByRole('heading', { name: 'Scan the bin' })).toBeVisible();
  for (const line of lines) {
    const { codes, packs } = items.get(line.itemId)!;
    const piece = codes.find((c) => c.packId === packs.find((p) => p.factor === 1)!.id)!.code;
    await scan(floor, line.bins[0]!.code);
    await expect(floor.getByRole('heading', { name: 'Scan the goods' })).toBeVisible();
    await scan(floor, piece);
    await floor.getByRole('button', { name: 'Number' }).tap();
    for (const digit of String(line.units)) await floor.getByRole('button', { name: digit, exact: true }).tap();
    await floor.getByRole('button', { name: / there$/ }).tap();
    await expect(band(floor, 'accepted')).toContainText(`from ${line.bins[0]!.code}`);
  }
  await expect(floor.getByRole('heading', { name: 'All parts are together' })).toBeVisible();

  // The desk sees the last part come in; what was built is told where it was built.
  await expect(desk.getByRole('table', { name: 'Parts' }).getByRole('img', { name: 'done' })).toHaveCount(lines.length);
  await floor.getByRole('button', { name: 'It is built' }).tap();
  await expect(floor.getByRole('heading', { name: 'Scan where they go' })).toBeVisible();
  await scan(floor, 'DOCK-1');
  await expect(floor.getByRole('heading', { name: 'Is it built?' })).toBeVisible();
  await floor.getByRole('button', { name: 'It is built' }).tap();
  await expect(floor.getByRole('heading', { name: 'Scan a paper, or choose' })).toBeVisible();
  await device.close();
  await expect(desk.getByText('One is worth')).toBeVisible();
  const build = await api<{ unitCost: string; partsCost: string; labourCost: string }>(desk, `builds/${code}`);
  expect(Number(build.unitCost) * 2).toBeCloseTo(Number(build.partsCost) + Number(build.labourCost), 4);
});
