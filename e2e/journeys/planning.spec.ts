import { expect, test } from '@playwright/test';
import { closesItsPages, desktop } from '../world.js';

closesItsPages();

test('a proposal is put off with why, and brought back', async ({ browser }) => {
  const buyer = await desktop(browser, 'piet');
  await buyer.goto('/plan');
  const off = buyer.getByRole('button', { name: /^Put .* off$/ }).first();
  const name = ((await off.getAttribute('aria-label')) ?? '').replace(/^Put | off$/g, '');
  await off.click();
  await buyer.getByLabel('Why').fill('the season is over');
  await buyer.getByRole('button', { name: 'Put it off' }).click();
  const list = buyer.getByRole('region', { name: 'Put off' });
  await expect(list.getByRole('row', { name: new RegExp(name) })).toContainText('the season is over');
  await expect(buyer.getByRole('button', { name: `Put ${name} off` })).toHaveCount(0);
  await list.getByRole('button', { name: `Propose ${name} again` }).click();
  await expect(list).toHaveCount(0);
  await expect(buyer.getByRole('button', { name: `Put ${name} off` })).toBeVisible();
});

test('the morning’s buying: from what is proposed to an order that is placed, in four presses', async ({ browser }) => {
  const buyer = await desktop(browser, 'piet');
  await buyer.goto('/');
  await buyer.getByRole('link', { name: 'Plan', exact: true }).click();
  await expect(buyer.getByText(/should be ordered for Millrace/)).toBeVisible();
  // Whatever the morning has left to order: what runs out first.
  const packs = buyer.getByRole('textbox', { name: /^\S+ of / }).first();
  const name = ((await packs.getAttribute('aria-label')) ?? '').replace(/^\S+ of /, '');
  const line = buyer.getByRole('row').filter({ has: buyer.getByRole('checkbox', { name: `Order ${name}`, exact: true }) });
  await expect(line).toContainText(/runs out|would be late/);
  // Its supplier may take orders on another day: a person decides.
  await line.getByRole('checkbox').check();
  // What is typed changes how long it lasts; what is none is not ordered.
  const lasts = await line.locator('td.num').nth(3).innerText();
  await packs.fill('many');
  await expect(buyer.getByRole('button', { name: /^Draft/ })).toBeDisabled();
  await packs.fill('999');
  await expect(line.locator('td.num').nth(3)).not.toHaveText(lasts);
  await buyer.getByRole('button', { name: /^Draft \d+ orders/ }).click();
  const said = buyer.getByText('They go to the suppliers when they are placed');
  await expect(said).toBeVisible();
  await expect(line).toHaveCount(0);
  await said.getByRole('link').first().click();
  await buyer.getByRole('button', { name: /^Place with/ }).click();
  await expect(buyer.getByRole('button', { name: /^Place with/ })).toHaveCount(0);
  await expect(buyer.locator('.sheet')).toContainText('placed');
});

test('what if a delivery does not come: the plan of an item answers, down to its weeks', async ({ browser }) => {
  const buyer = await desktop(browser, 'piet');
  await buyer.goto('/plan/items/JAR-454-RD');
  const ahead = buyer.getByRole('region', { name: 'Stock ahead' });
  const usual = await ahead.getByRole('status').innerText();
  await ahead.getByLabel('Deliveries').selectOption('none');
  await expect(ahead.getByRole('status')).toContainText('If nothing is delivered');
  await ahead.getByLabel('Demand').selectOption('130');
  await expect(ahead.getByRole('status')).toContainText('demand is 130 % of what is expected');
  await ahead.getByRole('button', { name: 'As it is' }).click();
  await expect(ahead.getByRole('status')).toHaveText(usual);
  await buyer.getByTitle('Why it is ordered at this point').click();
  await expect(buyer.getByText('safety stock', { exact: false })).toBeVisible();
  await buyer.getByRole('region', { name: 'Demand' }).getByRole('button', { name: 'Table' }).click();
  await expect(buyer.getByRole('region', { name: 'Weeks' }).getByRole('row').nth(40)).toBeVisible();
});

test('what nobody wants goes back to where it came from', async ({ browser }) => {
  const buyer = await desktop(browser, 'maren');
  await buyer.goto('/plan/too-much');
  await expect(buyer.getByText(/are tied up in what is too much/)).toBeVisible();
  const back = buyer.getByRole('row').filter({ has: buyer.getByRole('link', { name: /send it back to/ }) });
  const row = back.first();
  const name = await row.getByRole('link').first().innerText();
  const before = await row.innerText();
  await row.getByRole('link', { name: /send it back to/ }).click();
  const form = buyer.locator('.sheet');
  await form.getByLabel('Why they go back').fill('more than we sell in five years');
  await form.getByRole('row').filter({ hasText: name }).first().getByRole('button', { name: 'all of it' }).click();
  await form.getByRole('button', { name: 'Send back 1 line' }).click();
  await expect(form).toContainText('gone, credit awaited');
  await buyer.goto('/plan/too-much');
  await expect(buyer.getByText(/more of \d+ items? than half a year will take|too much of nothing/)).toBeVisible();
  // There may be more of it in another bin, and that is too much still: but less, or none.
  await expect.poll(async () => (await back.filter({ hasText: name }).allInnerTexts()).join()).not.toBe(before);
});

test('the last year is lived through again, beside a plain rule', async ({ browser }) => {
  const buyer = await desktop(browser, 'maren');
  await buyer.goto('/plan/coverage');
  await buyer.getByRole('table', { name: 'By worth and evenness' }).getByRole('link').first().click();
  await expect(buyer.getByRole('region', { name: /Items of A/ })).toBeVisible();
  await buyer.goto('/plan/proof');
  await buyer.getByRole('button', { name: 'Live through the last year' }).click();
  await expect(buyer.getByText(/These plans would have met [\d.]+ % of what was asked for/)).toBeVisible({ timeout: 90_000 });
  await expect(buyer.getByRole('row', { name: /Six weeks’ cover/ })).toBeVisible();
});
