import type { Dto } from './client';
import { withEntries } from './live';

describe('the live tape', () => {
  const entry = (id: number): Dto['TapeEntryDto'] => ({
    id,
    at: '2026-05-14T11:42:00Z',
    who: 'Idris',
    kind: 'pick',
    glyph: 'full',
    title: `act ${id}`,
    detail: '',
    document: null,
    how: null,
    undoable: true,
    undone: false,
    picture: null,
  });
  const tape = { entries: [entry(2), entry(1)], scansToday: 2 };
  it('gets new lines on top, the newest first', () => {
    expect(withEntries(tape, [entry(3), entry(4)]).entries.map((e) => e.id)).toEqual([4, 3, 2, 1]);
  });
  it('is left alone by lines that it has', () => {
    expect(withEntries(tape, [entry(1), entry(2)])).toBe(tape);
    expect(withEntries(tape, [entry(2), entry(3)]).entries.map((e) => e.id)).toEqual([3, 2, 1]);
  });
});
