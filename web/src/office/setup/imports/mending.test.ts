import { allKey, blocksOf, changesOf, keyOf } from './mending';

const group = (field: string, reason: string, value: string, rows: number, row = 2) => ({ field, label: field, reason, value, rows, row });
const groups = [group('tracking', 'one of', 'ja', 9), group('sku', 'twice', 'A2', 1, 4), group('tracking', 'one of', 'nein', 3, 5)];
const few = (field: string) => field === 'tracking';

describe('what is wrong in a file', () => {
  it('stands together by field and reason, the most rows first', () => {
    expect(blocksOf(groups).map((b) => [b.field, b.rows, b.groups.length])).toEqual([['tracking', 12, 2], ['sku', 1, 1]]); // prettier-ignore
  });

  it('is told as words, as one cell, or for all that have the fault; a word beside that goes first', () => {
    const blocks = blocksOf(groups);
    const said = new Map([[keyOf(groups[0]!), 'lot'], [keyOf(groups[1]!), 'A3']]); // prettier-ignore
    expect(changesOf(blocks, said, few)).toEqual([
      { field: 'tracking', value: 'ja', becomes: 'lot' },
      { field: 'sku', row: 4, becomes: 'A3' },
    ]);
    said.set(allKey(blocks[0]!), 'none');
    expect(changesOf(blocks, said, few).slice(0, 2)).toEqual([
      { field: 'tracking', reason: 'one of', becomes: 'none' },
      { field: 'tracking', value: 'ja', becomes: 'lot' },
    ]);
    expect(changesOf(blocks, new Map(), few)).toEqual([]);
  });
});
