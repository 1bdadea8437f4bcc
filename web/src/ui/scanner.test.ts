import { WedgeReader } from './scanner';

/** Presses keys with a gap between them, in milliseconds; returns what the last key led to. */
function press(reader: WedgeReader, text: string, gap: number, from = 0) {
  let at = from;
  let last: ReturnType<WedgeReader['key']> = { burst: false };
  for (const key of [...text, 'Enter']) {
    last = reader.key(key, at);
    at += gap;
  }
  return last;
}

describe('telling scanners from fingers', () => {
  it('takes a fast run that ends in Enter for a scan', () => {
    expect(press(new WedgeReader(), '9506000134352', 8)).toEqual({ scan: '9506000134352' });
  });
  it('takes slow keys for typing', () => {
    expect(press(new WedgeReader(), '9506000134352', 120)).toEqual({ burst: false });
  });
  it('does not take two fast letters for a scan', () => {
    expect(press(new WedgeReader(), 'ab', 5)).toEqual({ burst: false });
  });
  it('begins anew after a pause', () => {
    const reader = new WedgeReader();
    reader.key('x', 0);
    expect(press(reader, 'P-1187', 10, 500)).toEqual({ scan: 'P-1187' });
  });
  it('does not take a late Enter for the end of a scan', () => {
    const reader = new WedgeReader();
    [...'P-1187'].forEach((key, i) => reader.key(key, i * 10));
    expect(reader.key('Enter', 900)).toEqual({ burst: false });
  });
  it('passes over keys that type nothing', () => {
    const reader = new WedgeReader();
    reader.key('Shift', 0);
    expect(press(reader, 'T-01', 10, 5)).toEqual({ scan: 'T-01' });
  });
  it('reads two scans one after the other', () => {
    const reader = new WedgeReader();
    expect(press(reader, 'A-01-1', 10)).toEqual({ scan: 'A-01-1' });
    expect(press(reader, 'T-01', 10, 1_000)).toEqual({ scan: 'T-01' });
  });
  it('lets slow scanners take their time outside fields', () => {
    const reader = new WedgeReader();
    [...'P-1187'].forEach((key, i) => reader.key(key, i * 120, 300));
    expect(reader.key('Enter', 750, 300)).toEqual({ scan: 'P-1187' });
  });
});
