import { type Dto, ProblemError } from '../../api/client';
import { findingWords } from './bill-sheet';
import { billTotal, fromGoods, pennies } from './bill-values';
import { arrivalGroups } from './groups';
import { emptyLine } from './line-sum';
import { answerWords } from './order-answer';
import { followList, listFor, minimumWords, priceHint } from './order-prices';
import { goodsFound } from './order-goods';
import { atRows, emptyPrice, listed, type PriceRow, priceRows } from './price-list';

const packs = [
  { id: 1, name: 'pallet', plural: 'pallets', factor: 1536 },
  { id: 2, name: 'tray', plural: 'trays', factor: 48 },
  { id: 3, name: 'jar', plural: 'jars', factor: 1 },
];
const jar = {
  itemId: 1,
  sku: 'JAR',
  name: 'Jar',
  picture: 'jar',
  supplierSku: 'J1',
  packId: 2,
  price: '20.160000',
  breaks: [
    { from: 10, price: '19.200000' },
    { from: 32, price: '18.000000' },
  ],
  packs,
} as unknown as Dto['SupplierItemDto'];
const line = (more: object) => ({ ...emptyLine, sku: 'JAR', factor: 48, packs: '4', price: '20.16', ...more });

describe('prices of an order', () => {
  it('follow the list as the number grows, by its lower prices', () => {
    const fresh = followList(jar, emptyLine, { ...emptyLine, sku: 'JAR', factor: 48 });
    expect(fresh.price).toBe('20.16');
    expect(followList(jar, { ...fresh, packs: '4' }, { ...fresh, packs: '12' }).price).toBe('19.20');
    expect(followList(jar, line({}), line({ factor: 1536, packs: '1' })).price).toBe('645.12');
  });

  it('stay as somebody has typed them', () => {
    expect(followList(jar, line({ price: '17' }), line({ price: '17', packs: '40' })).price).toBe('17');
  });

  it('know lower prices only for the pack that is listed', () => {
    expect(listFor(jar, 1)).toEqual({ price: '0.42', breaks: [] });
    expect(listFor(undefined, 1)).toBeNull();
  });

  it('say why, what more would bring, and where more costs nothing', () => {
    expect(priceHint(jar, line({}), 'GBP')).toBe('6 more: £19.20');
    expect(priceHint(jar, line({ packs: '12', price: '19.20' }), 'GBP')).toBe('price from 10; 20 more: £18.00');
    expect(priceHint(jar, line({ packs: '31', price: '19.2' }), 'GBP')).toBe('price from 10; 1 more: £18.00, for no more in all');
    expect(priceHint(jar, line({ price: '25' }), 'GBP')).toBe('listed at £20.16');
    expect(priceHint(jar, line({ packs: '' }), 'GBP')).toBe('');
  });

  it('say what is short of the least order', () => {
    const supplier = {
      currency: 'EUR',
      leastValue: '100.00',
      leastUnits: 100,
      leastPallets: 1,
      items: [jar],
    } as unknown as Dto['SupplierSheetDto'];
    expect(minimumWords(supplier, [line({ packs: '2' })])).toEqual([
      '€59.68 short of the least value, €100.00',
      '4 units short of the least, 100',
      '1 pallet short of the least, 1',
    ]);
    expect(minimumWords(supplier, [line({ factor: 1536, packs: '1', price: '645.12' })])).toEqual([]);
    expect(minimumWords(undefined, [])).toEqual([]);
  });
});

describe('a price list', () => {
  const row = (sku: string, from: string, price: string) => ({ sku, factor: '48', supplierSku: 'J1', from, price });
  const faults = (...rows: PriceRow[]) => {
    try {
      listed(rows);
      return {};
    } catch (e) {
      return (e as ProblemError).fields;
    }
  };

  it('has a row for each price, and comes back as it was', () => {
    const rows = priceRows({ items: [jar] });
    expect(rows).toEqual([row('JAR', '1', '20.16'), row('JAR', '10', '19.20'), row('JAR', '32', '18.00')]);
    expect(listed([...rows, emptyPrice]).map((l) => l.item)).toEqual([
      { sku: 'JAR', factor: 48, supplierSku: 'J1', price: '20.16', breaks: [{ from: 10, price: '19.20' }, { from: 32, price: '18.00' }] }, // prettier-ignore
    ]);
  });

  it('says in the cell what is wrong', () => {
    expect(faults(row('JAR', '10', '19'))).toEqual({ 'priceList.0.from': expect.stringContaining('First the price of JAR') });
    expect(faults(row('JAR', '', '20'), row('jar ', '1', '19'))).toHaveProperty(['priceList.1.from']);
    expect(faults(row('JAR', '1', '20'), row('JAR', '9', '19'), row('JAR', '9', '18'))).toHaveProperty(['priceList.2.from']);
    expect(faults({ ...row('', '1.5', 'x'), factor: '0' })).toEqual({
      'priceList.0.sku': expect.any(String),
      'priceList.0.factor': expect.any(String),
      'priceList.0.from': expect.any(String),
      'priceList.0.price': expect.any(String),
    });
  });

  it('has what the server says at the row of the item', () => {
    const list = listed([row('JAR', '1', '20'), row('JAR', '9', '19'), row('LID', '1', '4')]);
    const moved = atRows(new ProblemError(400, 'form', 'Look', { 'items.1.sku': 'There is no item LID', name: 'Name it' }), list);
    expect((moved as ProblemError).fields).toEqual({ 'priceList.2.sku': 'There is no item LID', name: 'Name it' });
  });
});

describe('goods of an order', () => {
  const lid = { ...jar, sku: 'LID-63', name: 'Lid for jars', supplierSku: 'Q-9', price: '48.000000' };
  it('are found by words, SKU or the supplier’s number, with the pack and the price', () => {
    const found = (text: string) => goodsFound([lid, jar], text, 'EUR');
    expect(found('jar').map((f) => f.value)).toEqual(['JAR', 'LID-63']);
    expect(found('q-9')).toEqual([{ value: 'LID-63', title: 'Lid for jars', note: 'LID-63, Q-9, tray of 48, €48.00' }]);
    expect(found('jars lid').map((f) => f.value)).toEqual(['LID-63']);
    expect(found('nothing')).toEqual([]);
  });
});

describe('an answer to a line', () => {
  const of = (answer: object | null) =>
    answerWords({ pack: 'tray', packPlural: 'trays', answer } as unknown as Dto['PurchaseOrderLineDto'], 'GBP');
  it('says only what differs', () => {
    expect(of({ says: 'changed', packs: 3, price: '21', on: '2026-06-10', note: 'short' })).toMatch(
      /^offers 3 trays, at £21.00, on .*10 Jun.* \(short\)$/,
    );
    expect(of({ says: 'refused', note: '' })).toBe('refused');
    expect(of({ says: 'accepted' })).toBe('');
    expect(of(null)).toBe('');
  });
});

describe('arrivals', () => {
  const row = (code: string, more: object) =>
    ({ code, state: 'closed', late: false, openedAt: '2026-05-13T08:00:00Z', closedAt: null, ...more }) as unknown as Dto['ArrivalRowDto'];
  it('stand by what forces action, then by day', () => {
    const groups = arrivalGroups(
      [
        row('A-1', { state: 'open' }),
        row('A-2', { state: 'announced', late: true }),
        row('A-3', { state: 'announced' }),
        row('A-4', { closedAt: '2026-05-14T09:00:00Z' }),
        row('A-5', { closedAt: '2026-05-13T09:00:00Z' }),
        row('A-6', { openedAt: null, closedAt: '2026-05-12T09:00:00Z' }),
      ],
      new Date('2026-05-14T12:00:00Z'),
    );
    expect(groups.map(([name, list]) => [name, list.length])).toEqual([
      ['At the door', 1],
      ['Announced, late', 1],
      ['Announced', 1],
      ['Received today', 1],
      [expect.stringMatching(/^Received .*13 May/), 1],
      ['Did not come', 1],
    ]);
  });
});

describe('a bill', () => {
  it('is taken over to the penny, and added up as it is typed', () => {
    expect([pennies('60.000000'), pennies('0.005'), pennies('-1.234999')]).toEqual(['60.00', '0.01', '-1.23']);
    const goods = fromGoods({ order: 'P-1', line: 1, sku: 'JAR', name: 'Jar', units: 48, words: '1 tray', amount: '20.160000' });
    expect(goods).toEqual({ order: 'P-1', line: 1, units: '48', amount: '20.16' });
    expect(
      billTotal(
        [goods],
        [
          { order: 'P-1', says: 'Freight', amount: '4.', by: 'value' },
          { order: 'P-1', says: 'Duty', amount: '1.5', by: 'value' },
        ],
      ),
    ).toBe(21_660_000n);
  });

  it('says how each line stands', () => {
    const words = (more: object) =>
      findingWords({ finding: 'fits', difference: '0.000000', overWords: null, ...more } as Dto['BillLineDto'], 'EUR');
    expect(words({})).toBe('fits');
    expect(words({ finding: 'dearer', difference: '9.600000' })).toBe('€9.60 more than ordered');
    expect(words({ finding: 'cheaper', difference: '-2.000000' })).toBe('€2.00 less than ordered');
    expect(words({ finding: 'too many', overWords: '1 tray' })).toBe('1 tray more than came');
    expect(words({ finding: 'late' })).toContain('shared over its goods');
  });
});
