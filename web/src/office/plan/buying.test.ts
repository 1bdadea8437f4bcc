import {
  type Choices,
  firstChoices,
  lacksOf,
  lastsDays,
  type Line,
  lineKey,
  packsOf,
  type Supplier,
  takenOf,
  withoutIt,
  worthOf,
} from './buying';

const NO_CHOICES: Choices = { packs: {}, left: new Set() };

const line = (more: Partial<Line> = {}): Line => ({
  sku: 'JAR',
  name: 'Jar',
  picture: null,
  class: 'Jars',
  unit: 'jar',
  unitPlural: 'jars',
  units: 96,
  factor: 48,
  pack: 'tray',
  packPlural: 'trays',
  price: '20.16',
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
const supplier = (lines: Line[], more: Partial<Supplier> = {}): Supplier => ({
  code: 'QUILL',
  name: 'Quill',
  currency: 'EUR',
  orderOn: '2026-12-01',
  hereOn: '2026-12-14',
  leastValue: null,
  leastUnits: null,
  leastPallets: null,
  isEnough: true,
  lines,
  ...more,
});
const typed = (packs: string) => ({ ...NO_CHOICES, packs: { [lineKey('QUILL', 'JAR')]: packs } });

describe('packs of a line', () => {
  it('begins without what is asked for from a supplier who takes no orders today', () => {
    const later = supplier([line()], { code: 'LATER', orderOn: '2026-12-03' });
    const choices = firstChoices({ today: '2026-12-01', suppliers: [supplier([line()]), later] });
    expect(takenOf(choices, supplier([line()]))).toHaveLength(1);
    expect(takenOf(choices, later)).toEqual([]);
  });

  it('are as proposed until something else is typed; what is no whole number is none', () => {
    expect(packsOf(NO_CHOICES, 'QUILL', line())).toBe(2);
    expect(packsOf(typed('5'), 'QUILL', line())).toBe(5);
    expect(packsOf(typed(' 7 '), 'QUILL', line())).toBe(7);
    for (const wrong of ['', '-1', '2.5', '1e3', 'many', '99999999']) expect(packsOf(typed(wrong), 'QUILL', line())).toBeNull();
    // Another supplier's line of the same goods is not meant.
    expect(packsOf(typed('5'), 'OTHER', line())).toBe(2);
  });
});

describe('what would be ordered', () => {
  const jars = line();
  const lids = line({ sku: 'LID', units: 0, isDue: false });
  it('leaves out what is left out, what is nought and what is no number', () => {
    expect(takenOf(NO_CHOICES, supplier([jars, lids])).map((t) => t.line.sku)).toEqual(['JAR']);
    expect(takenOf({ ...NO_CHOICES, left: new Set([lineKey('QUILL', 'JAR')]) }, supplier([jars]))).toEqual([]);
    expect(takenOf(typed('0'), supplier([jars]))).toEqual([]);
    expect(takenOf(typed('x'), supplier([jars]))).toEqual([]);
  });

  it('comes to packs times price, to nothing for whoever sees no costs', () => {
    expect(worthOf(takenOf(typed('3'), supplier([jars])))).toBeCloseTo(60.48);
    const { price: _unseen, ...blind } = jars;
    expect(worthOf(takenOf(NO_CHOICES, supplier([blind])))).toBe(0);
  });

  it('says what the least order lacks, by value and by units, once anything is ordered', () => {
    const least = supplier([jars], { leastValue: '100.00' });
    expect(lacksOf(least, takenOf(NO_CHOICES, least))).toBe('59.68 EUR short of the least order');
    expect(lacksOf(least, takenOf(typed('5'), least))).toBe('');
    expect(lacksOf(least, [])).toBe('');
    const units = supplier([jars], { leastUnits: 200 });
    expect(lacksOf(units, takenOf(NO_CHOICES, units))).toBe('104 units short of the least order');
  });
});

describe('how long it lasts', () => {
  it('counts what is free, what is coming and what is ordered', () => {
    expect(lastsDays(line({ onOrder: 26 }), 2)).toBe(71);
    expect(lastsDays(line({ free: -40 }), 0)).toBe(0);
    expect(lastsDays(line({ weekMean: 0 }), 2)).toBeNull();
  });
});

describe('what happens without it', () => {
  const dayOf = (date: string) => `on ${date}`;
  it('is said by what is worst first', () => {
    expect(withoutIt(line({ broken: 5, late: 24 }), dayOf)).toBe(
      '5 promised to customers would be late, runs out on 2026-12-10, 24 on order are overdue',
    );
    expect(withoutIt(line({ isDue: false, runsOutOn: null }), dayOf)).toBe('not due yet');
  });
});
