import fc from 'fast-check';
import { checkExtra, extraValue } from '../src/catalogue/extra-fields.js';
import { isNarrowed, itemFilter, itemOrder, itemWhere, sitesOf, sortOf } from '../src/catalogue/item-filter.js';
import type { EditPackDto } from '../src/catalogue/items.dto.js';
import { barcodeFault, checkLadder } from '../src/catalogue/packs.js';
import { rightsOf, RIGHTS } from '../src/identity/duties.js';

describe('a filter of items', () => {
  it('takes what it knows, and passes over the rest', () => {
    expect(itemFilter({ search: '  jar ', state: 'sideways', site: '-4', drop: 'table' })).toEqual({
      search: 'jar',
      className: '',
      tag: '',
      supplier: '',
      state: 'all',
    });
    expect(itemFilter({ site: '2', state: 'short', search: ['a', 'b'], tag: 7 })).toMatchObject({
      siteId: 2,
      state: 'short',
      search: '',
      tag: '',
    });
  });

  it('never holds a word of the request in its SQL', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 4 }), fc.string({ minLength: 4 }), (a, b) => {
        const { sql, params } = itemWhere(
          itemFilter({ search: a, className: `§${b}`, tag: `§${a}`, supplier: `§${b}`, own: `§${a}`, ownHas: b }),
          [1, 2],
        );
        expect(sql).not.toContain('§');
        expect(sql.split('?').length - 1).toBe(params.length);
      }),
    );
  });

  it('counts no site that the person may not see', () => {
    expect(sitesOf({ siteId: 3 }, [1, 2])).toEqual([]);
    expect(sitesOf({ siteId: 2 }, [1, 2])).toEqual([2]);
    expect(sitesOf({}, [1, 2])).toEqual([1, 2]);
    const { params } = itemWhere({ siteId: 3, state: 'short' }, [1, 2]);
    expect(params.flat()).not.toContain(3);
  });

  it('looks for at most six words, each anywhere', () => {
    expect(itemWhere({ search: 'a b c d e f g h' }, []).params).toHaveLength(18);
    expect(itemWhere({ search: '50%_' }, []).params[0]).toBe('%50\\%\\_%');
    expect(itemWhere({}, [])).toEqual({ sql: '1 = 1', params: [] });
  });

  it('knows whether it narrows', () => {
    expect(isNarrowed(itemFilter({ state: 'short' }))).toBe(false);
    expect(isNarrowed(itemFilter({ tag: 'spring' }))).toBe(true);
    expect(isNarrowed(itemFilter({ own: 'Origin', ownIs: 'Ulm' }))).toBe(true);
    expect(isNarrowed(itemFilter({ own: 'Origin' }))).toBe(false);
    expect(isNarrowed(itemFilter({ own: 'a"b', ownIs: 'x' }))).toBe(false);
  });
});

describe('an order of items', () => {
  it('always ends in something that tells two rows apart', () => {
    for (const key of ['class', 'name', 'cost']) expect(itemOrder(key, true)).toMatch(/i\.id$/);
    expect(itemOrder('-name', true)).toBe('i.name DESC, i.id DESC');
    expect(itemOrder('sku', true)).toBe('i.sku');
  });

  it('falls back to class where it is not known or would tell costs', () => {
    const usual = itemOrder(undefined, true);
    for (const sort of ['', 'password', '__proto__', '-constructor', 'name; DROP TABLE item']) expect(itemOrder(sort, true)).toBe(usual);
    expect(itemOrder('cost', false)).toBe(usual);
    expect(itemOrder('-cost', false)).toBe(usual);
    expect(sortOf('-cost')).toEqual({ key: 'cost', down: true });
  });
});

describe('a pack ladder', () => {
  const pack = (factor: number): EditPackDto => ({ name: 'x', plural: 'xs', factor, barcodes: [] });

  it('has a base unit, and no two rungs alike', () => {
    expect(() => checkLadder([pack(1), pack(6), pack(48)])).not.toThrow();
    expect(() => checkLadder([pack(6)])).toThrow(/base unit/);
    expect(() => checkLadder([pack(1), pack(6), pack(6)])).toThrow(/same number/);
  });

  it.each([
    ['9521077000010', null],
    ['96385074', null],
    ['STR-ROLL', null],
    ['12345', null],
    ['123456789', null],
    ['9521077000011', /check digit/],
    ['96385075', /check digit/],
    ['123456789012', null],
    ['', /1 to 60/],
    ['   ', /1 to 60/],
    ['x'.repeat(61), /1 to 60/],
  ])('of a barcode %j says %s', (code, says) => {
    const fault = barcodeFault(code);
    if (says === null) expect(fault).toBeNull();
    else expect(fault).toMatch(says);
  });
});

describe('the company’s own fields', () => {
  const field = (kind: string, choices: string[] = []) => ({ name: 'Season', kind, choices });

  it.each([
    ['number', ' 1,5 ', '1.5'],
    ['number', '-2', '-2'],
    ['date', '14.05.2026', '2026-05-14'],
    ['date', '2026-05-14', '2026-05-14'],
    ['yes-no', 'Y', 'yes'],
    ['yes-no', 'no', 'no'],
    ['choice', 'SPRING', 'spring'],
    ['text', ' as it is ', 'as it is'],
  ])('keep a %s written %j as %j', (kind, typed, kept) => {
    expect(extraValue(field(kind, ['spring', 'autumn']), typed)).toEqual({ value: kept });
  });

  it.each([
    ['number', 'many', /is a number/],
    ['date', '31.02.2026', /is a date/],
    ['yes-no', 'perhaps', /yes or no/],
    ['choice', 'winter', /one of: spring, autumn/],
    ['text', 'x'.repeat(201), /longer than 200/],
  ])('refuse a %s of %j', (kind, typed, says) => {
    expect(extraValue(field(kind, ['spring', 'autumn']), typed)).toEqual({ wrong: expect.stringMatching(says) });
  });

  it('are those the company has, as text, and left out where empty', () => {
    const fields = [field('number')];
    expect(checkExtra(fields, { Season: ' 4 ' })).toEqual({ Season: '4' });
    expect(checkExtra(fields, { Season: '  ' })).toEqual({});
    expect(() => checkExtra(fields, { Colour: 'red' })).toThrow(expect.objectContaining({ status: 400 }));
    expect(() => checkExtra(fields, { Season: 4 })).toThrow(/Season is text/);
    expect(() => checkExtra(fields, { toString: 'x' })).toThrow(expect.objectContaining({ status: 400 }));
  });
});

describe('duties', () => {
  it('add up, and one that was adjusted is as it was adjusted', () => {
    expect([...rightsOf(['picker', 'packer'])].sort()).toEqual(['count', 'dispatch', 'pack', 'pick', 'store']);
    expect([...rightsOf(['picker'], { picker: ['receive'] })]).toEqual(['receive']);
    expect([...rightsOf(['picker', 'packer'], { picker: [] })].sort()).toEqual(['dispatch', 'pack']);
    expect(rightsOf([]).size).toBe(0);
  });

  it('of an owner are all there are', () => {
    expect([...rightsOf(['owner'])].sort()).toEqual(Object.keys(RIGHTS).sort());
  });

  it('that are not known give no rights', () => {
    expect(rightsOf(['king' as 'owner']).size).toBe(0);
  });
});
