import { chosenOf, scaleOf, soundIsOff, vibrationIsOff } from './device-choices';

const SITES = [
  { id: 1, name: 'Main' },
  { id: 2, name: 'Second' },
];

describe('the site that a device works at', () => {
  it('is the one that was chosen', () => {
    expect(chosenOf(SITES, '2')?.name).toBe('Second');
  });

  it('is the person’s first where nobody has chosen, or where they may not go', () => {
    expect(chosenOf(SITES, null)?.name).toBe('Main');
    expect(chosenOf(SITES, '7')?.name).toBe('Main');
  });

  it('is where the device stands, where nobody has chosen and the person may go there', () => {
    expect(chosenOf(SITES, null, 2)?.name).toBe('Second');
    expect(chosenOf(SITES, '1', 2)?.name).toBe('Main');
    expect(chosenOf(SITES, null, 7)?.name).toBe('Main');
  });

  it('is none for somebody without a site', () => {
    expect(chosenOf([], '1')).toBeUndefined();
    expect(chosenOf(undefined, '1')).toBeUndefined();
  });
});

describe('the scale of a table', () => {
  it('is the only one, or the one that was chosen; never that of another table', () => {
    expect(scaleOf([SITES[0]!], null)?.id).toBe(1);
    expect(scaleOf(SITES, '2')?.id).toBe(2);
    expect(scaleOf(SITES, null)).toBeUndefined();
    expect(scaleOf(SITES, '9')).toBeUndefined();
    expect(scaleOf([], '1')).toBeUndefined();
  });
});

describe('sound and vibration', () => {
  const store = new Map<string, string>();
  beforeAll(() => {
    Object.defineProperty(globalThis, 'localStorage', { value: { getItem: (k: string) => store.get(k) ?? null }, configurable: true });
  });

  it('are on until somebody turns them off, each by itself', () => {
    expect([soundIsOff(), vibrationIsOff()]).toEqual([false, false]);
    store.set('vectrum-muted', '1');
    expect([soundIsOff(), vibrationIsOff()]).toEqual([true, false]);
  });
});
