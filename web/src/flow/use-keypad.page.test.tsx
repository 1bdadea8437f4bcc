/** @jest-environment ./jest-page.js */
import { act } from 'react';
import { createRoot, type Root } from 'react-dom/client';
import { useKeypad } from './use-keypad';

describe('digits of a keypad', () => {
  let heard: string;
  let root: Root;
  function Pad() {
    useKeypad((digit) => (heard += digit));
    return <input aria-label="field" />;
  }
  beforeEach(() => {
    heard = '';
    const box = document.createElement('div');
    document.body.replaceChildren(box);
    root = createRoot(box);
    act(() => root.render(<Pad />));
  });
  afterEach(() => act(() => root.unmount()));

  const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));
  async function press(keys: string, gapMs: number, target: EventTarget = document.body) {
    for (const key of keys) {
      target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
      await wait(gapMs);
    }
    await wait(150);
  }

  it('are heard as a hand presses them', async () => {
    await press('120', 90);
    expect(heard).toBe('120');
  });

  it('are not heard of a scan, not even its first', async () => {
    await press('9506000134352', 2);
    expect(heard).toBe('');
    await press('7', 90);
    expect(heard).toBe('7');
  });

  it('are not heard in a field, nor as part of a shortcut', async () => {
    await press('48', 90, document.querySelector('input')!);
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: '1', ctrlKey: true, bubbles: true }));
    await wait(150);
    expect(heard).toBe('');
  });
});
