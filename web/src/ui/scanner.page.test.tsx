/** @jest-environment ./jest-page.js */
import { fireEvent, render, screen } from '@testing-library/react';
import { emitScan, useScanner } from './scanner';

const heard: string[] = [];
function Page() {
  useScanner((code) => heard.push(code));
  return (
    <>
      <input aria-label="Name" defaultValue="Jar" />
      <input aria-label="Code" data-scan />
    </>
  );
}

/** Types as the page would: what nobody has taken goes into the field. `gap`: milliseconds between two characters. */
function typed(text: string, gap: number, target: HTMLElement = document.body): void {
  for (const key of text === '' ? [] : [...text.replace(/\n$/, ''), ...(text.endsWith('\n') ? ['Enter'] : [])]) {
    clock += gap;
    const goes = fireEvent.keyDown(target, { key, timeStamp: clock });
    if (goes && key.length === 1 && target instanceof HTMLInputElement) fireEvent.change(target, { target: { value: target.value + key } });
  }
}
let clock = 1000;
const field = (name: string) => screen.getByLabelText<HTMLInputElement>(name);

describe('a scanner that types', () => {
  beforeAll(() => {
    // Events of a test have no time of their own.
    Object.defineProperty(Event.prototype, 'timeStamp', { get: () => clock });
    performance.mark = (() => undefined) as unknown as typeof performance.mark;
  });
  beforeEach(() => {
    jest.useFakeTimers();
    heard.length = 0;
    clock += 10_000;
    render(<Page />);
  });
  afterEach(() => jest.useRealTimers());

  it('is heard anywhere on the page', () => {
    typed('JAR-454-RD\n', 8);
    expect(heard).toEqual(['JAR-454-RD']);
  });

  it('leaves a field that did not ask as it was', () => {
    typed('5012345678900\n', 8, field('Name'));
    expect(heard).toEqual(['5012345678900']);
    expect(field('Name').value).toBe('Jar');
  });

  it('goes into a field that asks for it, and nowhere else', () => {
    typed('LOT-7\n', 8, field('Code'));
    expect(heard).toEqual([]);
    expect(field('Code').value).toBe('LOT-7');
  });

  it('is not mistaken for a hand that types', () => {
    typed('s round\n', 140, field('Name'));
    expect(heard).toEqual([]);
    expect(field('Name').value).toBe('Jars round');
  });

  it('gives back what was typed fast and is no scan', () => {
    typed('xyz', 10, field('Name'));
    jest.advanceTimersByTime(200);
    expect(field('Name').value).toBe('Jarxyz');
  });

  it('takes a slow one where nobody types words', () => {
    typed('A-01-1\n', 120);
    expect(heard).toEqual(['A-01-1']);
  });

  it('is heard by the one who listens last, and the camera likewise', () => {
    const above: string[] = [];
    function Above() {
      useScanner((code) => above.push(code));
      return null;
    }
    const { unmount } = render(<Above />);
    emitScan('T-01', 0);
    unmount();
    emitScan('T-02', 0);
    expect([above, heard]).toEqual([['T-01'], ['T-02']]);
  });
});
