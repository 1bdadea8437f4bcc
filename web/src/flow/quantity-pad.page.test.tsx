/** @jest-environment ./jest-page.js */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { JAR } from '../testing/goods';
import { QuantityPad } from './quantity-pad';

/** Trays and single jars. */
const item = { ...JAR, packs: JAR.packs.slice(1) };

function Pad({ start = {}, fresh = false }: { start?: Record<number, number>; fresh?: boolean }) {
  const [kept, setKept] = useState(start);
  const [active, setActive] = useState(2);
  return (
    <>
      <output>{JSON.stringify(kept)}</output>
      <QuantityPad
        item={item}
        counts={kept}
        active={active}
        fresh={fresh}
        onCount={(id, count) => setKept({ ...kept, [id]: count })}
        onActive={setActive}
      />
    </>
  );
}
const counts = () => JSON.parse(screen.getByRole('status').textContent) as Record<number, number>;
const press = async (...keys: string[]) => {
  for (const name of keys) await userEvent.click(screen.getByRole('button', { name }));
};

describe('the pad for quantities', () => {
  it('takes figures for the pack that is chosen', async () => {
    render(<Pad />);
    await press('1', '2');
    expect(counts()).toEqual({ 2: 12 });
    await userEvent.click(screen.getByRole('tab', { name: /Jar/ }));
    await press('5');
    expect(counts()).toEqual({ 2: 12, 1: 5 });
  });

  it('reckons layers as they are seen', async () => {
    render(<Pad />);
    await press('4', 'times', '1', '2', 'plus', '5');
    expect(counts()[2]).toBe(53);
    expect(screen.getByRole('tab', { name: /Tray/ }).textContent).toContain('4×12+5');
  });

  it('goes on to the next pack with its last key', async () => {
    render(<Pad />);
    await press('3', 'Jars', '7');
    expect(counts()).toEqual({ 2: 3, 1: 7 });
  });

  it('clears the pack that is chosen, and no other', async () => {
    render(<Pad start={{ 2: 3, 1: 9 }} />);
    await press('Clear');
    expect(counts()).toEqual({ 2: 0, 1: 9 });
  });

  it('begins anew where the figure was filled in for somebody', async () => {
    render(<Pad start={{ 2: 40 }} fresh />);
    await press('6');
    expect(counts()[2]).toBe(6);
  });

  it('takes no more than anybody could count', async () => {
    render(<Pad start={{ 2: 9_999_999 }} />);
    await press('9');
    expect(counts()[2]).toBe(9_999_999);
  });
});
