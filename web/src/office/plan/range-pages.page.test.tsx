/** @jest-environment ./jest-page.js */
import { act, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { key } from '../../api/keys';
import { FakeServer, shown } from '../../testing/house';
import { CoveragePage } from './coverage-page';
import { ExcessPage } from './excess-page';
import { ProofPage } from './proof-page';

const me = {
  name: 'Piet',
  sites: [
    { id: 1, code: 'MILL', name: 'Millrace', timeZone: 'UTC' },
    { id: 2, code: 'QUAY', name: 'Quayside', timeZone: 'UTC' },
  ],
  rights: ['buy'],
  seesCosts: true,
  homeCurrency: 'GBP',
};

let server: FakeServer;
const open = (page: ReactNode, answers: Record<string, object>, { who = me, at = '/' } = {}) => {
  server = new FakeServer();
  for (const [route, body] of Object.entries(answers)) server.on(route, { body });
  const view = shown(page, { at });
  act(() => void view.client.setQueryData(key('me'), who));
  return view;
};

const goods = { picture: null, unit: 'jar', unitPlural: 'jars' };

describe('what there is too much of', () => {
  const row = (more: object) => ({ ...goods, sku: 'JAR', name: 'Jar', free: 500, units: 300, coverDays: 400, ageDays: 90, expiresOn: null, value: '120.00', wantedAt: null, backTo: null, inKits: [], ...more }); // prettier-ignore
  const excess = (rows: object[], value: string | undefined = '120.00') => ({
    'GET /api/buying/sites/1/excess': { siteId: 1, today: '2026-11-30', rows, value },
  });

  it('says what it ties up, and what could be done, where it is wanted first', async () => {
    const all = row({
      wantedAt: { siteId: 2, site: 'Quayside', units: 120 },
      backTo: { supplier: 'Quill', arrival: 'A-0007' },
      inKits: [{ sku: 'KIT', name: 'Starter kit' }],
    });
    open(
      <ExcessPage />,
      excess([all, row({ sku: 'OLD', name: 'Old lid', coverDays: null, ageDays: null }), row({ sku: 'SLOW', name: 'Slow lid' })]),
    );
    expect(
      await screen.findByText('There is more of 3 items than half a year will take: 120 GBP are tied up in what is too much'),
    ).toBeTruthy();
    const links = within(screen.getByRole('row', { name: /JAR/ }))
      .getAllByRole('link')
      .map((l) => l.getAttribute('href'));
    expect(links).toEqual([
      '/plan/items/JAR',
      '/shelves/transfers/new?from=1&to=2&sku=JAR&units=120',
      '/inbound/returns/new?arrival=A-0007',
      '/shelves/items/KIT',
    ]);
    const old = screen.getByRole('row', { name: /OLD/ });
    expect(old.textContent).toContain('nobody asks');
    expect(
      within(old)
        .getByRole('link', { name: /sell it off/ })
        .getAttribute('href'),
    ).toBe('/books/slow');
    expect(screen.getByRole('row', { name: /SLOW/ }).textContent).toContain('order less of it');
  });

  it('says so where there is nothing, and no money to whoever sees no costs', async () => {
    open(<ExcessPage />, excess([]));
    expect(await screen.findByText('There is too much of nothing')).toBeTruthy();
    open(<ExcessPage />, { 'GET /api/buying/sites/1/excess': { siteId: 1, today: '2026-11-30', rows: [row({ value: undefined })] } });
    expect(await screen.findByText('There is more of 1 item than half a year will take')).toBeTruthy();
    expect(screen.queryByText('Worth')).toBeNull();
  });
});

describe('how long stock lasts over the range', () => {
  const field = (name: string, items: number, more: object = {}) => ({
    field: name,
    items,
    out: 0,
    weeks: items > 0 ? 4.5 : null,
    stockValue: '1000.00',
    ...more,
  });
  const fields = ['AX', 'AY', 'AZ', 'BX', 'BY', 'BZ', 'CX', 'CY', 'CZ'].map((f, i) =>
    field(f, i === 0 ? 5 : i === 8 ? 2 : 0, i === 0 ? { out: 1 } : {}),
  );
  const rows = [
    { ...goods, sku: 'JAR', name: 'Jar', weekMean: 31, weekSd: 9, method: 'season', free: -4, onOrder: 96, point: 139, coverDays: 0 },
  ];

  it('is a map whose fields open to their items, what runs out first before the rest', async () => {
    open(
      <CoveragePage />,
      { 'GET /api/buying/sites/1/coverage': { siteId: 1, today: '2026-11-30', items: 7, fields, rows } },
      { at: '/?field=AX' },
    );
    expect(await screen.findByText(/7 items are planned; 5 of them make four fifths/)).toBeTruthy();
    const map = screen.getByRole('table', { name: 'By worth and evenness' });
    expect(
      within(map)
        .getAllByRole('link')
        .map((l) => l.getAttribute('href')),
    ).toEqual(['/plan/coverage?field=AX', '/plan/coverage?field=CZ']);
    expect(within(map).getByText('1 with nothing free')).toBeTruthy();
    const items = screen.getByRole('region', { name: 'Items of AX' });
    expect(within(items).getByRole('row', { name: /Jar/ }).textContent).toContain('−4');
  });

  it('says what to do in a house where nothing is planned', async () => {
    open(<CoveragePage />, { 'GET /api/buying/sites/1/coverage': { siteId: 1, today: '2026-11-30', items: 0, fields: [], rows: [] } });
    expect(await screen.findByText('Nothing is planned here yet')).toBeTruthy();
  });
});

describe('the proof', () => {
  const rule = (name: string, cost: string, metPercent: number) => ({
    rule: name,
    items: 40,
    metPercent,
    orders: 90,
    stockValue: '900.00',
    cost,
  });
  const latest = (more: object) => ({
    id: 1,
    askedAt: '2026-11-30T08:00:00Z',
    by: 'Piet',
    total: 40,
    done: 40,
    isOver: true,
    rules: [rule('planned', '800.00', 97.2), rule('cover', '1000.00', 94.1)],
    ...more,
  });
  const nothing = { proposals: 0, right: 0, expected: 0, asked: 0, asProposed: 0, farthest: [] };
  const at = (body: object | null, truth: object = nothing) => ({ 'GET /api/buying/sites/1/back-test': { latest: body, truth } });

  it('says in a sentence how these plans would have done beside a plain rule', async () => {
    open(<ProofPage />, at(latest({})));
    expect(
      await screen.findByText(
        'These plans would have met 97.2 % of what was asked for, for 20 % less than six weeks’ cover, which would have met 94.1 %',
      ),
    ).toBeTruthy();
    expect(screen.queryByRole('progressbar')).toBeNull();
  });

  it('shows how far it is, and is not begun twice', async () => {
    open(<ProofPage />, at(latest({ done: 12, isOver: false })));
    expect(await screen.findByText('12 of 40 items are lived through')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Do it again' }).hasAttribute('disabled')).toBe(true);
  });

  it('says what became of proposals that were taken', async () => {
    const truth = {
      proposals: 10,
      right: 7,
      expected: 550,
      asked: 500,
      asProposed: 6,
      farthest: [{ sku: 'JAR', name: 'Jar', on: '2026-09-01', expected: 90, asked: 40 }],
    };
    open(<ProofPage />, at(null, truth));
    expect(
      await screen.findByText(
        'Of 10 proposals whose time is over 7 were within a third of what was asked for, and all together 10 % more than was asked for',
      ),
    ).toBeTruthy();
    expect(screen.getByText('6 of 10 were taken as they were proposed')).toBeTruthy();
    expect(screen.getByRole('row', { name: /Jar/ }).textContent).toContain('90');
  });

  it('is begun by a press where nobody has, and says where too little is known', async () => {
    open(<ProofPage />, at(null));
    server.on('POST /api/buying/back-tests', { status: 202, body: { id: 4 } });
    await userEvent.click(await screen.findByRole('button', { name: 'Live through the last year' }));
    expect(server.asked.find((a) => a.method === 'POST')!.body).toEqual({ siteId: 1 });
    open(<ProofPage />, at(latest({ rules: [] })));
    expect(await screen.findByText(/Too little is known of the last year/)).toBeTruthy();
  });
});
