import { expect, type Page, test } from '@playwright/test';
import { api, band, closesItsPages, desktop, itemsOf, phone, scan, signIn, taskOf } from '../world.js';

closesItsPages();

interface Goods {
  itemId: number;
  lot: string | null;
  units: number;
  fromCode: string;
  suggestion: { code: string } | null;
  orders: number;
}
const codeOf = async (page: Page, itemId: number): Promise<string> => {
  const { codes, packs } = (await itemsOf(page)).get(itemId)!;
  const single = packs.find((p) => p.factor === 1)!.id;
  return codes.find((c) => c.packId === single)!.code;
};

test('what orders wait for is brought from the reserve by three scans, and they can be picked', async ({ browser }) => {
  const desk = await desktop(browser, 'maren');
  const { goods } = await taskOf<{ goods: Goods[] }>(desk, 'refill', '1');
  const first = goods.find((g) => g.orders > 0 && g.lot === null && g.suggestion)!;
  await desk.goto('/picking/release');
  await expect(desk.getByText('to be refilled').first()).toBeVisible();
  await desk.goto('/shelves/to-refill');
  await expect(desk.getByRole('row', { name: new RegExp(first.fromCode) })).toContainText(first.suggestion!.code);

  const context = await phone(browser);
  await signIn(context, 'joss');
  const floor = await context.newPage();
  await floor.goto('/floor');
  await floor.getByRole('link', { name: /^Refill/ }).tap();
  await expect(floor.getByRole('heading', { name: 'Scan the bin' })).toBeVisible();
  const code = await codeOf(desk, first.itemId);
  await scan(floor, code);
  await expect(band(floor, 'not-this')).toContainText('Scan the bin first');
  await scan(floor, first.fromCode);
  await expect(floor.getByRole('heading', { name: 'Scan the goods' })).toBeVisible();
  await scan(floor, code);
  await expect(floor.getByRole('heading', { name: 'Scan where they go' })).toBeVisible();
  await scan(floor, first.fromCode);
  await expect(band(floor, 'not-this')).toContainText('comes from here');
  await scan(floor, first.suggestion!.code);
  await expect(band(floor, 'accepted')).toContainText(`in ${first.suggestion!.code}`);
  await expect(async () => {
    const left = await taskOf<{ goods: Goods[] }>(desk, 'refill', '1');
    expect(left.goods.filter((g) => g.itemId === first.itemId)).toEqual([]);
  }).toPass();
  await expect(desk.getByRole('row', { name: new RegExp(first.fromCode) })).toHaveCount(0);
  await context.close();
});

test('a bin that a picker has reported is counted by somebody else, and the books follow', async ({ browser }) => {
  const desk = await desktop(browser, 'maren');
  const [spot] = await api<{ id: number; place: string; item: string; raisedBy: string }[]>(desk, 'sites/1/spot-counts');
  expect(spot!.raisedBy).toContain('Joss');
  const context = await phone(browser);
  await signIn(context, 'ines');
  const floor = await context.newPage();
  await floor.goto('/floor');
  await floor.getByRole('link', { name: /^Count/ }).tap();
  await floor.getByRole('link', { name: /^Reported bins/ }).tap();
  await expect(floor.getByText(spot!.item)).toBeVisible();
  await scan(floor, spot!.place);
  await expect(floor.getByRole('heading', { name: 'How many are there?' })).toBeVisible();
  await floor.getByRole('button', { name: 'Number', exact: true }).tap();
  await floor.getByRole('button', { name: '5', exact: true }).tap();
  await floor.getByRole('button', { name: /^5 .* there$/ }).tap();
  await expect(band(floor, 'accepted')).toContainText(`counted in ${spot!.place}`);

  await desk.goto('/shelves/to-count');
  const row = desk.getByRole('row', { name: new RegExp(spot!.place) });
  await expect(row).toContainText('the books had');
  await row.getByRole('button', { name: 'Count again' }).click();
  await expect(row).toContainText('to be counted again');
  await row.getByRole('button', { name: 'Enter a count' }).click();
  await row.getByRole('textbox').fill('6');
  await row.getByRole('button', { name: 'Counted' }).click();
  await row.getByRole('button', { name: /^Book .* less$/ }).click();
  await expect(row).toHaveCount(0);
  await context.close();
});
