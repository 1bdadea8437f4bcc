/** @jest-environment ./jest-page.js */
import { act, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useAtOnce } from './at-once';

function Box({ kept, keep }: { kept: boolean; keep: (on: boolean) => Promise<unknown> }) {
  const [on, choose] = useAtOnce(kept, keep);
  return <input type="checkbox" checked={on} onChange={(e) => choose(e.target.checked)} />;
}
const box = () => screen.getByRole<HTMLInputElement>('checkbox');

describe('a value that is kept as it is chosen', () => {
  it('shows when the click is over, before anything was answered', () => {
    render(<Box kept={false} keep={() => new Promise(() => undefined)} />);
    act(() => box().click());
    expect(box().checked).toBe(true);
  });

  it('goes back to what stands there where it is refused', async () => {
    render(<Box kept={false} keep={() => Promise.reject(new Error('no'))} />);
    await userEvent.click(box());
    await waitFor(() => expect(box().checked).toBe(false));
  });

  it('is sent one after another, and the last one shows', async () => {
    const answers: (() => void)[] = [];
    const sent: boolean[] = [];
    const keep = (on: boolean) => {
      sent.push(on);
      return new Promise<void>((done) => answers.push(done));
    };
    render(<Box kept={false} keep={keep} />);
    await userEvent.click(box());
    await userEvent.click(box());
    expect(sent).toEqual([true]);
    answers[0]!();
    await waitFor(() => expect(sent).toEqual([true, false]));
    expect(box().checked).toBe(false);
  });
});
