import type { Dto } from '../api/client';
import { type LastAct, lastActOf } from './last-act';

const line = (id: number, more: Partial<Dto['TapeEntryDto']> = {}): Dto['TapeEntryDto'] => ({
  id,
  at: '2026-11-30T10:00:00Z',
  who: 'Ines',
  kind: 'pick',
  glyph: 'full',
  title: `Line ${id}`,
  detail: '',
  document: 'S-1',
  how: null,
  undoable: true,
  undone: false,
  picture: null,
  ...more,
});
const act = (id: string, activityId: number | null): LastAct => ({ id, title: id, detail: '', activityId });

describe('what an undo takes back', () => {
  it('is the last act that was made here, also while its answer is on its way', () => {
    expect(lastActOf([act('a', 7), act('b', null)], [line(7)])).toMatchObject({ id: 'b', activityId: null });
  });

  it('is not what was taken back elsewhere meanwhile', () => {
    expect(lastActOf([act('a', 7), act('b', 8)], [line(8, { undone: true, undoable: false }), line(7)])).toMatchObject({ id: 'a' });
  });

  it('is the newest of one’s own where nothing was made here, whatever was refused since', () => {
    const tape = [line(9, { kind: 'refusal', undoable: false }), line(8, { undone: true, undoable: false }), line(7)];
    expect(lastActOf([], tape)).toEqual({ title: 'Line 7', detail: '', activityId: 7 });
  });

  it('is nothing that was done for something else', () => {
    expect(lastActOf([], [line(9, { document: 'S-2' }), line(7)], ['R-1', 'S-1'])).toBeNull();
    expect(lastActOf([], [line(9, { document: 'R-1' })], ['R-1', 'S-1'])).toMatchObject({ activityId: 9 });
  });

  it('is never an older one than the newest', () => {
    expect(lastActOf([], [line(9, { kind: 'set-down', undoable: false }), line(7)])).toBeNull();
    expect(lastActOf([], [])).toBeNull();
  });
});
