import { zoneRefusal } from '../index.js';
import type { ItemFacts, PlaceFacts } from '../types.js';

const item = (storage?: ItemFacts['storage']): ItemFacts => ({
  id: 1,
  sku: 'X',
  name: 'Mite strips',
  picture: 'box',
  tracking: 'none',
  packs: [],
  home: null,
  ...(storage ? { storage } : {}),
});
const bin = (rule?: PlaceFacts['rule']): PlaceFacts => ({ id: 1, code: 'V-01-1', kind: 'pick-face', siteId: 1, ...(rule ? { rule } : {}) });

describe('the rule of a zone', () => {
  it.each([
    ['any', 'none', true],
    ['any', 'cold', true],
    ['any', 'restricted', false],
    ['cold', 'none', false],
    ['cold', 'cold', true],
    ['cold', 'restricted', false],
    ['restricted', 'none', false],
    ['restricted', 'cold', false],
    ['restricted', 'restricted', true],
  ] as const)('goods that may stand "%s" in a zone that is "%s": %s', (storage, rule, may) => {
    expect(zoneRefusal(item(storage), bin(rule)) === null).toBe(may);
  });
  it('asks nothing of goods and places without one', () => {
    expect(zoneRefusal(item(), bin())).toBeNull();
  });
  it('says where to go instead', () => {
    expect(zoneRefusal(item('cold'), bin())).toMatchObject({
      band: 'not-this',
      detail: 'Mite strips must stand cold. Scan a bin of a cold zone',
    });
  });
});
