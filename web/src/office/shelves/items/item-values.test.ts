import type { Dto } from '../../../api/client';
import { blankPack, bodyOf, freshValues, valuesOf } from './item-values';

const sites = [
  { id: 1, name: 'Millrace' },
  { id: 2, name: 'Quay' },
] as Dto['SiteDto'][];

const item = {
  id: 7,
  sku: 'JAR-454-RD',
  name: 'Jar 454 g, round',
  className: 'Jars and lids',
  picture: 'jar',
  kind: 'single',
  tracking: 'none',
  rotation: 'fifo',
  storage: 'any',
  minLifeDays: null,
  taxCode: 'STANDARD',
  cost: '0.410000',
  labour: null,
  neverHoldsUp: false,
  scanEach: false,
  serialAtPacking: false,
  keepUpright: false,
  fragile: false,
  tags: ['glass', 'spring'],
  extra: { origin: 'Netherwick' },
  packs: [
    {
      id: 2,
      name: 'tray',
      plural: 'trays',
      factor: 48,
      weightG: 11_000,
      lengthMm: 600,
      widthMm: 400,
      heightMm: 130,
      barcodes: ['19521077000017'],
    },
    {
      id: 1,
      name: 'jar',
      plural: 'jars',
      factor: 1,
      weightG: 230,
      lengthMm: null,
      widthMm: null,
      heightMm: null,
      barcodes: ['9521077000010', 'OLD-1'],
    },
  ],
  sites: [
    { siteId: 1, site: 'Millrace', home: 'C-07-2', cost: '0.400000', reorderPoint: 0, orderUpTo: 960, refillBelow: 48, refillUpTo: null },
  ],
  parts: [],
} as unknown as Dto['ItemDto'];

describe('an item as a form', () => {
  it('shows its packs from the smallest up, and costs without zeros that say nothing', () => {
    const values = valuesOf(item);
    expect(values.packs.map((p) => p.factor)).toEqual(['1', '48']);
    expect(values.packs[0]?.barcodes).toBe('9521077000010 OLD-1');
    expect(values.cost).toBe('0.41');
    expect(values.labour).toBe('');
  });

  it.each([
    ['10.000000', '10'],
    ['100.500000', '100.5'],
    ['0.000001', '0.000001'],
    [null, ''],
  ])('writes a cost of %s as "%s"', (cost, shown) => {
    expect(valuesOf({ ...item, cost }).cost).toBe(shown);
  });

  it('tells a reorder point of nothing from none', () => {
    expect(valuesOf(item).sites[0]).toMatchObject({ reorderPoint: '0', orderUpTo: '960', refillBelow: '48', refillUpTo: '' });
    const none = { ...item, sites: [{ ...item.sites[0]!, reorderPoint: null }] };
    expect(valuesOf(none).sites[0]?.reorderPoint).toBe('');
  });

  it('comes back as it was when nothing is touched', () => {
    const body = bodyOf(valuesOf(item), true);
    expect(body).toMatchObject({
      sku: 'JAR-454-RD',
      taxCode: 'STANDARD',
      cost: '0.41',
      labour: null,
      tags: ['glass', 'spring'],
      extra: { origin: 'Netherwick' },
      sites: [{ siteId: 1, home: 'C-07-2', cost: '0.4', reorderPoint: 0, orderUpTo: 960, refillBelow: 48, refillUpTo: null }],
    });
    expect(body.packs).toEqual([
      {
        name: 'jar',
        plural: 'jars',
        factor: 1,
        weightG: 230,
        lengthMm: null,
        widthMm: null,
        heightMm: null,
        barcodes: ['9521077000010', 'OLD-1'],
      },
      {
        name: 'tray',
        plural: 'trays',
        factor: 48,
        weightG: 11_000,
        lengthMm: 600,
        widthMm: 400,
        heightMm: 130,
        barcodes: ['19521077000017'],
      },
    ]);
  });

  it('sends no cost for those who may not see any, so that none is wiped out', () => {
    const body = bodyOf(valuesOf(item), false);
    expect(body).not.toHaveProperty('cost');
    expect(body).not.toHaveProperty('labour');
    expect(body.sites?.[0]).not.toHaveProperty('cost');
  });

  it('takes tags and barcodes apart, however they were typed', () => {
    const values = {
      ...valuesOf(item),
      tags: ' glass ,, spring,',
      packs: [{ ...blankPack, name: 'jar', factor: '1', barcodes: '  111\n222\t333 ' }],
    };
    const body = bodyOf(values, true);
    expect(body.tags).toEqual(['glass', 'spring']);
    expect(body.packs[0]?.barcodes).toEqual(['111', '222', '333']);
  });

  it('keeps parts and work for what is put together only', () => {
    const parts = [
      { sku: ' JAR-454-RD ', units: '2' },
      { sku: '', units: '' },
    ];
    expect(bodyOf({ ...valuesOf(item), parts, labour: '1.50' }, true)).toMatchObject({ parts: [], labour: null });
    expect(bodyOf({ ...valuesOf(item), kind: 'kit', parts, labour: '1.50' }, true)).toMatchObject({
      parts: [{ sku: 'JAR-454-RD', units: 2 }],
      labour: null,
    });
    expect(bodyOf({ ...valuesOf(item), kind: 'assembly', parts, labour: ' 1.50 ' }, true).labour).toBe('1.50');
  });

  it('drops fields of the company that were left empty', () => {
    expect(bodyOf({ ...valuesOf(item), extra: { origin: '  ', season: 'spring' } }, true).extra).toEqual({ season: 'spring' });
  });
});

describe('a new item', () => {
  it('begins as single pieces, with a row for each site', () => {
    const values = freshValues(sites);
    expect(values.packs).toEqual([{ ...blankPack, name: 'piece', plural: 'pieces', factor: '1' }]);
    expect(values.sites.map((s) => s.site)).toEqual(['Millrace', 'Quay']);
  });

  it('asks for nothing that was left empty', () => {
    const body = bodyOf({ ...freshValues(sites), sku: 'NEW-1', name: 'Skep' }, true);
    expect(body).toMatchObject({ taxCode: null, cost: null, tags: [], parts: [], extra: {} });
    expect(body.packs[0]).toMatchObject({ factor: 1, weightG: null, barcodes: [] });
    expect(body.sites?.[0]).toEqual({
      siteId: 1,
      home: null,
      cost: null,
      reorderPoint: null,
      orderUpTo: null,
      refillBelow: null,
      refillUpTo: null,
    });
  });
});
