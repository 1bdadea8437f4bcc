import { homesAfter } from './slotting-homes';

const move = (sku: string, from: string, to: string, changeSku: string | null) => ({ sku, from, to, changeSku });

describe('pick faces after changes of places', () => {
  it('are those of both where two change, and of the last change where one goes twice', () => {
    expect(homesAfter([move('JAR', 'B', 'A', 'LID'), move('LID', 'B', 'C', null)])).toEqual([
      { sku: 'JAR', place: 'A' },
      { sku: 'LID', place: 'C' },
    ]);
  });
});
