import { codeKey, resolve } from '../index.js';
import { commandOf, normalCode } from '../../barcode/index.js';
import { sentence } from '../feedback.js';
import { book } from './book.js';

describe('what a code means', () => {
  it.each([
    ['9506000134352', 1, 11],
    [']E09506000134352', 1, 11],
    ['09506000134352', 1, 11],
    ['19506000134359', 1, 12],
    ['(01)19506000134359(10)L1', 1, 12],
    ['https://id.example.org/01/09506000134369/10/L9', 3, 31],
    ['jar', 1, 11],
    [' JAR ', 1, 11],
  ])('%s', (code, itemId, packId) => {
    const meaning = resolve(code, book);
    expect(meaning).toMatchObject({ kind: 'item', item: { id: itemId }, pack: { id: packId } });
  });

  it('takes lot and date along, the expiry before the best-before date', () => {
    expect(resolve(']C101095060001343691528013117280331' + '10LM1', book)).toMatchObject({ lot: 'LM1', expires: '2028-03-31' });
    expect(resolve(']C1010950600013436915280131', book)).toMatchObject({ lot: null, expires: '2028-01-31' });
  });

  it.each([
    [']C101195060001343591712XX', 'length', '01195060001343591712XX'],
    [']C1010950600013436910LM117280331', 'missingSeparator', '010950600013436910LM117280331'],
    ['010950600013436910LM117280331', 'missingSeparator', '010950600013436910LM117280331'],
    [']C10109506000134368', 'checkDigit', '0109506000134368'],
  ])('guesses nothing of %s', (code, fault, printed) => {
    expect(resolve(code, book)).toEqual({ kind: 'misread', code: printed, fault });
  });

  it('takes a lot that looks like one without a separator, where the scanner is known to send them', () => {
    expect(resolve(']C1010950600013436910LM117280331', { ...book, separatorsSeen: true })).toMatchObject({ lot: 'LM117280331' });
  });

  it('knows a place by a scanner that says which symbology it read', () => {
    expect(resolve(']C0A-01-1', book)).toMatchObject({ kind: 'place', place: { code: 'A-01-1' } });
    expect(resolve(']Q1VX-UNDO', book)).toEqual({ kind: 'command', command: 'undo' });
  });

  it('knows places in capitals and small letters', () => {
    expect(resolve('a-01-1', book)).toMatchObject({ kind: 'place', place: { code: 'A-01-1' } });
    expect(resolve('T-01', book)).toMatchObject({ kind: 'place', place: { kind: 'tote' } });
  });

  it('hears command cards before all else', () => {
    expect(resolve('VX-CONFIRM', book)).toEqual({ kind: 'command', command: 'confirm' });
    expect(commandOf('vx-not-here')).toBe('not-here');
    expect(commandOf('VX-UNDO ')).toBe('undo');
    expect(commandOf('VX-DANCE')).toBeUndefined();
  });

  it.each(['__proto__', 'constructor', 'toString', 'hasOwnProperty'])('is not fooled by %s', (code) => {
    expect(resolve(code, book).kind).toBe('unknown');
    expect(commandOf(code)).toBeUndefined();
  });

  it('keeps codes under one key, however they were written', () => {
    const today = '2027-03-01';
    expect(new Set(['9506000134352', '09506000134352', ']E09506000134352', '(01)09506000134352'].map((c) => codeKey(c, today)))).toEqual(
      new Set(['09506000134352']),
    );
    expect(codeKey(' t-31 ', today)).toBe('T-31');
    expect(normalCode(']E096385074')).toBe('96385074');
  });
});

describe('how feedback is worded', () => {
  it('begins with a capital', () => {
    expect(sentence('two trays')).toBe('Two trays');
    expect(sentence('2 trays')).toBe('2 trays');
    expect(sentence('')).toBe('');
  });
});
