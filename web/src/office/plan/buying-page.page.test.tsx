/** @jest-environment ./jest-page.js */
import { act, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { key } from '../../api/keys';
import { FakeServer, shown } from '../../testing/house';
import { BuyingPage } from './buying-page';

const line = (sku: string, name: string, more: object = {}) => ({
  sku,
  name,
  picture: null,
  class: 'Jars',
  unit: 'jar',
  unitPlural: 'jars',
  units: 96,
  factor: 48,
  pack: 'tray',
  packPlural: 'trays',
  price: '10.00',
  unitCost: '0.2',
  free: 20,
  onOrder: 0,
  point: 60,
  weekMean: 14,
  method: 'level',
  leadDays: 14,
  runsOutOn: '2026-12-10',
  missed: 0,
  broken: 0,
  because: '',
  isDue: true,
  yesterday: null,
  late: 0,
  elsewhere: null,
  others: 0,
  ...more,
});
const buying = (more: object = {}) => ({
  siteId: 1,
  site: 'Millrace',
  today: '2026-11-30',
  asOf: 41,
  items: 20,
  planning: 0,
  knowsYesterday: true,
  suppliers: [
    {
      code: 'QUILL',
      name: 'Quill Glass',
      currency: 'EUR',
      orderOn: '2026-11-30',
      hereOn: '2026-12-14',
      leastValue: '50.00',
      leastUnits: null,
      leastPallets: null,
      isEnough: false,
      lines: [
        line('JAR', 'Jar', { broken: 5, runsOutOn: '2026-12-01' }),
        line('LID', 'Lid', { elsewhere: { siteId: 2, site: 'Quayside', units: 300 }, yesterday: 48 }),
      ],
    },
  ],
  built: [line('KIT', 'Starter frame', { units: 4, factor: 1, unit: 'frame', unitPlural: 'frames' })],
  unsourced: [],
  exceptions: [{ sku: 'JAR', name: 'Jar', what: 'late', says: '24 jars should have been here' }],
  putOff: [{ sku: 'WAX', name: 'Wax', until: '2026-12-20', why: 'the season is over', by: 'Piet' }],
  ...more,
});
const me = {
  name: 'Piet',
  sites: [{ id: 1, code: 'MILL', name: 'Millrace', timeZone: 'UTC' }],
  rights: ['buy'],
  seesCosts: true,
  homeCurrency: 'GBP',
  units: 'kilograms and millimetres',
};

let server: FakeServer;
const open = (answer: object = buying(), who: object = me) => {
  server = new FakeServer().on('GET /api/session', { body: who }).on('GET /api/buying/sites/1', { body: answer });
  const view = shown(
    <Routes>
      <Route path="/plan" element={<BuyingPage />} />
    </Routes>,
    { at: '/plan' },
  );
  act(() => void view.client.setQueryData(key('me'), who));
  return view;
};
const row = (name: RegExp) => screen.findByRole('row', { name });
const sent = () => server.asked.find((a) => a.path === '/api/buying/take')!;

describe('the morning’s buying', () => {
  it('says what runs out first, what would be late, and what another site could send', async () => {
    open();
    expect(
      await screen.findByText('2 items from 1 supplier should be ordered for Millrace; Jar runs out first, on Tue 1 Dec'),
    ).toBeTruthy();
    expect(within(await row(/^Order Jar/)).getByText(/5 promised to customers would be late/).className).toContain('stamped');
    const lid = await row(/^Order Lid/);
    expect(
      within(lid)
        .getByRole('link', { name: /Quayside has 300 to spare/ })
        .getAttribute('href'),
    ).toBe('/shelves/transfers/new?to=1&from=2&sku=LID');
    expect(within(lid).getByText('yesterday 48')).toBeTruthy();
    expect(screen.getByText('24 jars should have been here')).toBeTruthy();
    expect(
      within(screen.getByRole('region', { name: 'To be built here' }))
        .getByRole('link', { name: /Plan it/ })
        .getAttribute('href'),
    ).toBe('/shelves/builds/new?sku=KIT&units=4');
  });

  it('drafts what is chosen as it is typed, with what was seen, and links the orders', async () => {
    open();
    server.on('POST /api/buying/take', { status: 201, body: { orders: ['P-1201'] } });
    const trays = within(await row(/^Order Jar/)).getByRole('textbox');
    await userEvent.clear(trays);
    await userEvent.type(trays, '7');
    await userEvent.click(screen.getByRole('checkbox', { name: 'Order Lid' }));
    await userEvent.click(screen.getByRole('button', { name: 'Draft 1 order, 1 line' }));
    expect((await screen.findByRole('link', { name: 'P-1201' })).getAttribute('href')).toBe('/inbound/P-1201');
    expect(sent().body).toEqual({ siteId: 1, asOf: 41, lines: [{ sku: 'JAR', supplier: 'QUILL', packs: 7 }] });
  });

  it('sends the same act again after a lost answer, and shows why another was quicker', async () => {
    open();
    const answers = [
      'lost',
      { status: 409, body: { status: 409, code: 'state', detail: 'Maren has drafted P-1200 with JAR meanwhile', title: '' } },
    ] as const;
    let n = 0;
    server.on('POST /api/buying/take', () => answers[n++]!);
    const button = await screen.findByRole('button', { name: 'Draft 1 order, 2 lines' });
    await userEvent.click(button);
    expect(await screen.findByText(/What you did is kept; try again/)).toBeTruthy();
    await userEvent.click(await screen.findByRole('button', { name: 'Draft 1 order, 2 lines' }));
    expect(await screen.findByText(/Maren has drafted P-1200/)).toBeTruthy();
    const keys = server.asked.filter((a) => a.path === '/api/buying/take').map((a) => a.headers.get('idempotency-key'));
    expect(new Set(keys).size).toBe(1);
  });

  it('orders nothing of what is no number, and says what the least order lacks', async () => {
    open();
    const trays = within(await row(/^Order Jar/)).getByRole('textbox');
    expect(screen.getByText('10.00 EUR short of the least order')).toBeTruthy();
    await userEvent.clear(trays);
    await userEvent.type(trays, '3');
    expect(screen.queryByText(/short of the least order/)).toBeNull();
    await userEvent.type(trays, 'x');
    expect(screen.getByRole('button', { name: /^Draft/ }).hasAttribute('disabled')).toBe(true);
    expect(screen.getByText('a whole number')).toBeTruthy();
  });

  it('leaves out what a sum of money does not reach to, the most urgent last', async () => {
    open();
    await userEvent.type(await screen.findByLabelText(/no more than GBP/), '20');
    await userEvent.click(screen.getByRole('button', { name: 'Choose the most urgent' }));
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'Order Jar' }).checked).toBe(true);
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'Order Lid' }).checked).toBe(false);
  });

  it('shows no money to whoever sees no costs', async () => {
    const blind = buying();
    for (const l of blind.suppliers[0]!.lines) Object.assign(l, { price: undefined, unitCost: undefined });
    Object.assign(blind.suppliers[0]!, { leastValue: undefined });
    open(blind, { ...me, seesCosts: false });
    await row(/^Order Jar/);
    expect(screen.queryByText(/EUR|GBP/)).toBeNull();
    expect(screen.queryByRole('link', { name: 'Proof' })).toBeNull();
  });

  it('puts off with why, and brings back', async () => {
    open();
    server.on('POST /api/buying/put-off', { body: { sku: 'LID' } }).on('POST /api/buying/bring-back', { body: { sku: 'WAX' } });
    await userEvent.click(within(await row(/^Order Lid/)).getByRole('button', { name: 'Put Lid off' }));
    await userEvent.selectOptions(screen.getByRole('combobox'), 'enough');
    await userEvent.type(screen.getByLabelText('Why'), 'sold out anyway');
    await userEvent.click(screen.getByRole('button', { name: 'Put it off' }));
    await userEvent.click(await screen.findByRole('button', { name: 'Propose Wax again' }));
    const bodies = server.asked.filter((a) => a.method === 'POST').map((a) => a.body);
    expect(bodies).toEqual([
      { siteId: 1, sku: 'LID', says: 'enough', why: 'sold out anyway' },
      { siteId: 1, sku: 'WAX' },
    ]);
  });

  it('says how far planning is, and what to do in a house where nothing is planned', async () => {
    const first = open(buying({ planning: 12 }));
    expect(await screen.findByText('12 of 20 items are being planned anew')).toBeTruthy();
    first.unmount();
    open(buying({ suppliers: [], built: [], exceptions: [], putOff: [], items: 0 }));
    expect(await screen.findByText('Nothing has to be ordered for Millrace today')).toBeTruthy();
    expect(screen.getByText(/Take in past demand under Setup, Imports/)).toBeTruthy();
  });
});
