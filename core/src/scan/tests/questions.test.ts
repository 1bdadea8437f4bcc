import { answersFor, commandAfter, letGoWords, type ReceiveCommand, type StoreCommand, wantsAnAnswer } from '../index.js';

const receipt: ReceiveCommand = {
  kind: 'receive',
  id: 'a',
  document: 'P-1187',
  lineId: 1,
  itemId: 1,
  units: 48,
  toPlaceId: 101,
  lot: null,
  expires: null,
  how: 'scanned',
  as: 'ordered',
  condition: 'good',
  reason: null,
};
const stored: StoreCommand = { kind: 'store', id: 'b', itemId: 1, lotId: 0, units: 2, fromPlaceId: 100, toPlaceId: 101, how: 'scanned' };

describe('what came too late', () => {
  it('may be asked once more under an id of its own, or let go', () => {
    expect(answersFor(stored)).toEqual(['again', 'let-go']);
    expect(commandAfter(stored, 'again', 'c')).toEqual({ ...stored, id: 'c' });
    expect(commandAfter(stored, 'let-go', 'c')).toBeNull();
    expect(commandAfter(stored, 'apart', 'c')).toBeNull();
  });

  it('is set apart where an order has no room, and counts on no line then', () => {
    expect(answersFor(receipt)).toContain('apart');
    expect(commandAfter(receipt, 'apart', 'c')).toEqual({ ...receipt, id: 'c', lineId: null, as: 'apart', reason: 'too many' });
    expect(answersFor({ ...receipt, as: 'apart' })).toEqual(['again', 'let-go']);
  });

  it('wants an answer where goods or papers were handled, and then says what to do with them', () => {
    expect(wantsAnAnswer('pick')).toBe(true);
    expect(letGoWords('pick')).toBe('Put the goods back into their bin');
    expect(wantsAnAnswer('take')).toBe(false);
    expect(wantsAnAnswer('refused')).toBe(false);
  });
});
