/** @jest-environment ./jest-page.js */
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { keepScannerProfile, UNKNOWN_SCANNER } from './profile';
import { emitScan, useScanner } from './use-scanner';

const heard: string[] = [];
const entered: string[] = [];
function Page() {
  useScanner((code) => heard.push(code));
  return (
    <>
      <input aria-label="Name" defaultValue="Jar" />
      <input aria-label="Code" data-scan onKeyDown={(e) => e.key === 'Enter' && entered.push(e.currentTarget.value)} />
      <input aria-label="Lot" data-scan="lot" />
      <input aria-label="Codes" data-scan="more" />
      <input aria-label="Grams" data-scan="grams" />
      <select aria-label="Kind" defaultValue="jar">
        <option value="jar">Jar</option>
        <option value="bin">Bin</option>
      </select>
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
    entered.length = 0;
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

  it.each([
    ['in the middle', 1, 1],
    ['over all of it', 0, 3],
    ['over its end', 2, 3],
  ])('leaves it so with the caret %s, and the caret there', (_, from, to) => {
    field('Name').focus();
    field('Name').setSelectionRange(from, to);
    typed('5012345678900\n', 8, field('Name'));
    expect(heard).toEqual(['5012345678900']);
    expect(field('Name').value).toBe('Jar');
    expect([field('Name').selectionStart, field('Name').selectionEnd]).toEqual([from, to]);
  });

  it('leaves a list as it was, which a letter would have changed', () => {
    typed('B-02-1\n', 8, screen.getByLabelText('Kind'));
    expect(heard).toEqual(['B-02-1']);
    expect(screen.getByLabelText<HTMLSelectElement>('Kind').value).toBe('jar');
    typed('b', 8, screen.getByLabelText('Kind'));
    jest.advanceTimersByTime(200);
    expect(screen.getByLabelText<HTMLSelectElement>('Kind').value).toBe('bin');
  });

  it('goes whole into a field that asks for it, in the place of what stood there, and nowhere else', () => {
    fireEvent.change(field('Code'), { target: { value: 'OLD-LOT' } });
    field('Code').focus();
    field('Code').setSelectionRange(3, 3);
    typed('LOT-7\n', 8, field('Code'));
    expect(heard).toEqual([]);
    expect(field('Code').value).toBe('LOT-7');
    expect(entered).toEqual([]);
    jest.advanceTimersByTime(10);
    expect(entered).toEqual(['LOT-7']);
  });

  it('gives a field its lot alone, and a list one code more', () => {
    typed('(01)09506000134352(10)AB-1\n', 8, field('Lot'));
    typed('111222\n', 8, field('Codes'));
    typed('333444\n', 8, field('Codes'));
    expect([field('Lot').value, field('Codes').value]).toEqual(['AB-1', '111222 333444']);
  });

  it('gives a scale its field, and barcodes to the page', () => {
    typed('0.905 kg\n', 8, field('Grams'));
    expect(field('Grams').value).toBe('905');
    typed('9506000134352\n', 8, field('Grams'));
    expect(field('Grams').value).toBe('905');
    expect(heard).toEqual(['9506000134352']);
  });

  it('ends without Enter, and is not cut in two by a pause', () => {
    typed('95060', 8);
    jest.advanceTimersByTime(40);
    typed('00134352', 8);
    jest.advanceTimersByTime(400);
    expect(heard).toEqual(['9506000134352']);
  });

  it('is not cut in two where the page was busy behind its first keys', () => {
    for (const cut of [1, 2, 4]) {
      typed('19521077000017'.slice(0, cut), 8, field('Name'));
      jest.advanceTimersByTime(400);
      typed('19521077000017\n'.slice(cut), 8, field('Name'));
      expect(heard.splice(0)).toEqual(['19521077000017']);
      expect(field('Name').value).toBe('Jar');
    }
    const list = screen.getByLabelText<HTMLSelectElement>('Kind');
    typed('b', 8, list);
    jest.advanceTimersByTime(400);
    typed('-02-1\n', 8, list);
    expect(heard).toEqual(['b-02-1']);
    expect(list.value).toBe('jar');
  });

  it('is not seen in what a hand presses around an arrow, however fast, and nothing of that is lost', () => {
    const press = (key: string, target: HTMLElement = document.body) => {
      clock += 5;
      return fireEvent.keyDown(target, { key, timeStamp: clock });
    };
    expect([press(' '), press('ArrowDown'), press('ArrowDown'), press(' ')]).toEqual([true, true, true, true]);
    clock += 1_000;
    typed('xy', 5, field('Name'));
    press('ArrowLeft', field('Name'));
    expect(field('Name').value).toBe('Jarxy');
    jest.advanceTimersByTime(400);
    expect(field('Name').value).toBe('Jarxy');
    expect(heard).toEqual([]);
  });

  it('may send such a key between two fields, where the card has shown that it does', () => {
    keepScannerProfile({ ...UNKNOWN_SCANNER, separators: ['End'], separatorsSeen: true });
    for (const key of [...'0109506000134352', ...'10AB-1', 'End', ...'17291231', 'Enter']) {
      clock += 8;
      fireEvent.keyDown(document.body, { key, timeStamp: clock });
    }
    keepScannerProfile(null);
    expect(heard).toEqual([expect.stringContaining('10AB-1\u001d17291231')]);
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
    emitScan(']C0T-02', 0);
    expect([above, heard]).toEqual([['T-01'], ['T-02']]);
  });

  it('waits for the next page where it comes between two', () => {
    cleanup();
    emitScan('T-03', 0);
    render(<Page />);
    jest.advanceTimersByTime(1);
    expect(heard).toEqual(['T-03']);
    cleanup();
    emitScan('T-04', 0);
    jest.advanceTimersByTime(5_000);
    render(<Page />);
    jest.advanceTimersByTime(1);
    expect(heard).toEqual(['T-03']);
  });
});
