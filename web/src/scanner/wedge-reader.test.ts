import { UNKNOWN_SCANNER, type ScannerProfile } from './profile';
import { type PressedKey, UNHURRIED_MS, WedgeReader } from './wedge-reader';

const GS = '\u001d';
type Pressed = string | Omit<PressedKey, 'at'>;

/** Presses keys with a gap between them, in milliseconds; returns what the last key led to. */
function press(reader: WedgeReader, keys: Iterable<Pressed>, gap: number, from = 0, near?: number) {
  let at = from - gap;
  let last: ReturnType<WedgeReader['key']> = { as: 'other' };
  for (const key of keys) {
    at += gap;
    last = reader.key({ ...(typeof key === 'string' ? { key } : key), at }, near);
  }
  return last;
}
const ended = (text: string): Pressed[] => [...text, 'Enter'];
const withProfile = (more: Partial<ScannerProfile>) => new WedgeReader(() => ({ ...UNKNOWN_SCANNER, ...more }));

describe('telling scanners from fingers', () => {
  it('takes a fast run that ends in Enter for a scan, and one that ends in Tab', () => {
    expect(press(new WedgeReader(), ended('9506000134352'), 8)).toEqual({ as: 'scan', code: '9506000134352' });
    expect(press(new WedgeReader(), [...'T-01', 'Tab'], 8)).toEqual({ as: 'scan', code: 'T-01' });
  });
  it('takes slow keys for typing', () => {
    expect(press(new WedgeReader(), ended('9506000134352'), 120)).toEqual({ as: 'other' });
  });
  it('does not take two fast letters for a scan', () => {
    expect(press(new WedgeReader(), ended('ab'), 5)).toEqual({ as: 'other' });
  });
  it('does not take a key that is held down for a scan', () => {
    const held = Array.from({ length: 20 }, () => ({ key: 'x', repeat: true }));
    expect(press(new WedgeReader(), [...held, 'Enter'], 30)).toEqual({ as: 'other' });
  });
  it('begins anew after a pause', () => {
    const reader = new WedgeReader();
    reader.key({ key: 'x', at: 0 });
    expect(press(reader, ended('P-1187'), 10, 500)).toEqual({ as: 'scan', code: 'P-1187' });
  });
  it('does not take a late Enter for the end of a scan', () => {
    const reader = new WedgeReader();
    press(reader, 'P-1187', 10);
    expect(reader.key({ key: 'Enter', at: 900 })).toEqual({ as: 'other' });
  });
  it('tells a number keyed by hand from the scan right behind it', () => {
    const reader = new WedgeReader();
    press(reader, '12', 160, 0, UNHURRIED_MS);
    expect(press(reader, ended('9506000134352'), 5, 400, UNHURRIED_MS)).toEqual({ as: 'scan', code: '9506000134352' });
    // A slow scanner stays slow, and is read whole.
    expect(press(new WedgeReader(), ended('P-1187'), 120, 0, UNHURRIED_MS)).toEqual({ as: 'scan', code: 'P-1187' });
  });
  it('passes over keys that type nothing', () => {
    const reader = new WedgeReader();
    reader.key({ key: 'Shift', at: 0 });
    expect(press(reader, ended('T-01'), 10, 5)).toEqual({ as: 'scan', code: 'T-01' });
  });
  it('lets slow scanners take their time outside fields, and in them where the card has shown how slow', () => {
    expect(press(new WedgeReader(), ended('P-1187'), 120, 0, UNHURRIED_MS)).toEqual({ as: 'scan', code: 'P-1187' });
    expect(press(withProfile({ gapMs: 150 }), ended('P-1187'), 120)).toEqual({ as: 'scan', code: 'P-1187' });
  });
});

describe('a scanner that sends no Enter', () => {
  it('has ended when nothing comes any more', () => {
    const reader = new WedgeReader();
    press(reader, '9506000134352', 8);
    expect(reader.pause(400)).toEqual({ code: '9506000134352' });
    expect(reader.pause(800)).toBeUndefined();
  });
  it('and whose Enter comes late leaves no Enter for the page', () => {
    const reader = new WedgeReader();
    press(reader, '9506000134352', 8);
    reader.pause(400);
    expect(reader.key({ key: 'Enter', at: 700 })).toEqual({ as: 'scanned' });
    expect(reader.key({ key: 'Enter', at: 760 })).toEqual({ as: 'other' });
  });
  it('is not seen in a few fast letters, which are to be had back', () => {
    const reader = new WedgeReader();
    press(reader, 'xyz', 10);
    expect(reader.pause(200)).toBeUndefined();
    expect(reader.pending).toBe('xyz');
  });
});

describe('keys that stand for a separator', () => {
  const lot = (sign: Pressed[]): Pressed[] => [...ended(']C1010950600013435210ABC').slice(0, -1), ...sign, ...ended('17280331')];
  it.each<[string, Pressed[]]>([
    ['the character itself', [GS]],
    ['Ctrl+]', [{ key: 'Control' }, { key: ']', ctrl: true }]],
    ['Ctrl+] of another keyboard', [{ key: '+', code: 'BracketRight', ctrl: true }]],
    ['F8', [{ key: 'F8' }]],
    ['Alt and its number', [{ key: 'Alt' }, { key: '0', alt: true }, { key: '2', alt: true }, { key: '9', alt: true }]],
  ])('%s', (_, sign) => {
    expect(press(new WedgeReader(), lot(sign), 8)).toEqual({ as: 'scan', code: `]C1010950600013435210ABC${GS}17280331` });
  });
  it('one that only the test card has shown', () => {
    expect(press(withProfile({ separators: ['Ctrl+g'] }), lot([{ key: 'g', ctrl: true }]), 8)).toMatchObject({
      code: `]C1010950600013435210ABC${GS}17280331`,
    });
    expect(press(new WedgeReader(), lot([{ key: 'F9' }]), 8)).toMatchObject({ code: ']C1010950600013435210ABC17280331' });
  });
  it('are no text where a run is given back', () => {
    const reader = new WedgeReader();
    press(reader, ['a', 'b', { key: 'F8' }], 8);
    expect(reader.pending).toBe('ab');
  });
  it('types brackets where they need the Alt key', () => {
    expect(press(new WedgeReader(), [{ key: '{', ctrl: true, alt: true }, ...'GS', 'Enter'], 8)).toMatchObject({ code: '{GS' });
  });
});

describe('what a scanner puts around its codes', () => {
  it('is taken off, where a card has shown it', () => {
    expect(press(withProfile({ prefix: '#', suffix: '$$' }), ended('#T-01$$'), 8)).toEqual({ as: 'scan', code: 'T-01' });
  });
});

describe('two scanners at once', () => {
  it('make a code that nothing has, rather than either of the two', () => {
    const reader = new WedgeReader();
    const mixed = [...'9506000134352'].flatMap((c, i) => [c, '9506000134369'[i]!]);
    expect(press(reader, [...mixed, 'Enter', 'Enter'], 4)).toEqual({ as: 'other' });
  });
});
