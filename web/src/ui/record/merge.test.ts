import { mergeRecord } from './merge';

const base = { name: 'Alder & Sons', phone: '01', days: 14, lines: [{ sku: 'A', packs: 1 }] };

describe('a record that two people change', () => {
  it('takes what only they have changed', () => {
    const { taken, conflicts } = mergeRecord(base, { ...base, phone: '02' }, { ...base, name: 'Alder' });
    expect([...taken]).toEqual([['phone', '02']]);
    expect(conflicts).toEqual([]);
  });

  it('keeps what only I have changed', () => {
    const { taken, conflicts } = mergeRecord(base, base, { ...base, name: 'Alder' });
    expect([taken.size, conflicts.length]).toEqual([0, 0]);
  });

  it('asks where both have, with both values', () => {
    const { conflicts } = mergeRecord(base, { ...base, days: 21 }, { ...base, days: 7 });
    expect(conflicts).toEqual([{ field: 'days', theirs: 21, mine: 7 }]);
  });

  it('does not ask where both have changed it alike', () => {
    expect(mergeRecord(base, { ...base, days: 7 }, { ...base, days: 7 }).conflicts).toEqual([]);
  });

  it('compares lists by what stands in them', () => {
    const more = [...base.lines, { sku: 'B', packs: 2 }];
    expect([...mergeRecord(base, { ...base, lines: more }, base).taken.keys()]).toEqual(['lines']);
    expect(mergeRecord(base, { ...base, lines: more }, { ...base, lines: [] }).conflicts.map((c) => c.field)).toEqual(['lines']);
    expect(mergeRecord(base, { ...base, lines: [{ sku: 'A', packs: 1 }] }, { ...base, lines: [] }).conflicts).toEqual([]);
  });

  it('takes an empty field and one that is not there for the same', () => {
    const bare = { note: '' };
    expect(mergeRecord(bare, { note: undefined }, { note: 'x' }).conflicts).toEqual([]);
    expect(mergeRecord(bare, { note: null }, { note: '' }).taken.size).toBe(0);
  });
});
