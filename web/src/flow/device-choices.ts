import { useSyncExternalStore } from 'react';

/** What is chosen on a device and stays chosen there: by whoever holds it, for whoever holds it next. */
const NAMES = { site: 'vectrum-site', scale: 'vectrum-scale', sound: 'vectrum-muted', vibration: 'vectrum-still' } as const;
type Choice = keyof typeof NAMES;

const watchers = new Set<() => void>();
const watch = (fn: () => void) => {
  watchers.add(fn);
  return () => void watchers.delete(fn);
};

const kept = (name: Choice): string | null => localStorage.getItem(NAMES[name]);
function keep(name: Choice, value: string): void {
  localStorage.setItem(NAMES[name], value);
  for (const fn of watchers) fn();
}

export const soundIsOff = (): boolean => kept('sound') === '1';
export const vibrationIsOff = (): boolean => kept('vibration') === '1';

/** A switch of this device, and how to turn it. */
function useSwitch(name: 'sound' | 'vibration'): [off: boolean, turn: (off: boolean) => void] {
  const off = useSyncExternalStore(watch, () => kept(name) === '1');
  return [off, (next) => keep(name, next ? '1' : '0')];
}
export const useSound = () => useSwitch('sound');
export const useVibration = () => useSwitch('vibration');

/** Whether a person scans each piece that they pick, rather than keying how many: their habit, kept on the devices that they use. */
export function useScansEach(personId: number | undefined): [each: boolean, turn: (each: boolean) => void] {
  const name = `vectrum-each-${personId ?? ''}`;
  const each = useSyncExternalStore(watch, () => localStorage.getItem(name) === '1');
  return [
    each,
    (next) => {
      localStorage.setItem(name, next ? '1' : '0');
      for (const fn of watchers) fn();
    },
  ];
}

/** The chosen one of a person's sites; otherwise the one that the device stands at, or their first. */
export const chosenOf = <S extends { id: number }>(
  sites: readonly S[] | undefined,
  chosen: string | null,
  standsAt: number | null = null,
): S | undefined => sites?.find((s) => String(s.id) === chosen) ?? sites?.find((s) => s.id === standsAt) ?? sites?.[0];

/** The scale beside this table: the only one there is, or the one that was chosen; nobody is weighed on another table's. */
export const scaleOf = <S extends { id: number }>(scales: readonly S[] | undefined, chosen: string | null): S | undefined =>
  scales?.length === 1 ? scales[0] : scales?.find((s) => String(s.id) === chosen);

/** The scale that stands at this device, of those of its site. */
export function useChosenScale<S extends { id: number }>(scales: readonly S[] | undefined): [S | undefined, (id: number) => void] {
  const chosen = useSyncExternalStore(watch, () => kept('scale'));
  return [scaleOf(scales, chosen), (id) => keep('scale', String(id))];
}

/** Forgets which site was chosen: the device has come to stand at another. */
export const forgetSite = (): void => localStorage.removeItem(NAMES.site);

/** The site of several that this device works at: the one that was chosen, otherwise where it stands. */
export function useChosenSite<S extends { id: number }>(
  sites: readonly S[] | undefined,
  standsAt: number | null = null,
): [S | undefined, (id: number) => void] {
  const chosen = useSyncExternalStore(watch, () => kept('site'));
  return [chosenOf(sites, chosen, standsAt), (id) => keep('site', String(id))];
}
