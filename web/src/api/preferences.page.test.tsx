/** @jest-environment ./jest-page.js */
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { FakeServer, shown } from '../testing/house';
import { usePreference } from './preferences';

function Columns() {
  const [{ columns }, choose] = usePreference('columns', { columns: ['name', 'sku'] });
  return (
    <label>
      <input
        type="checkbox"
        disabled={!choose}
        checked={columns.includes('tags')}
        onChange={() => choose?.({ columns: [...columns, 'tags'] })}
      />
      {columns.join(' ')}
    </label>
  );
}

describe('what a person has arranged', () => {
  it('cannot be changed before it is known, and so is never overwritten by the usual', async () => {
    let answer: (() => void) | undefined;
    new FakeServer().on('GET /api/preferences/columns', () => new Promise((done) => (answer = () => done({ body: { value: null } }))));
    shown(<Columns />);
    expect(screen.getByRole<HTMLInputElement>('checkbox').disabled).toBe(true);
    await waitFor(() => expect(answer).toBeDefined());
    answer?.();
    await waitFor(() => expect(screen.getByRole<HTMLInputElement>('checkbox').disabled).toBe(false));
  });

  it('shows when the click is over, before anybody has answered, and is kept', async () => {
    const server = new FakeServer()
      .on('GET /api/preferences/columns', { body: { value: { columns: ['sku'] } } })
      .on('PUT /api/preferences/columns', () => new Promise(() => undefined));
    shown(<Columns />);
    await screen.findByText('sku');
    const box = screen.getByRole<HTMLInputElement>('checkbox');
    await userEvent.click(box);
    expect(box.checked).toBe(true);
    await waitFor(() => expect(server.count('PUT /api/preferences/columns')).toBe(1));
    expect(server.asked.at(-1)?.body).toEqual({ value: { columns: ['sku', 'tags'] } });
  });

  it('holds though the page was loaded anew before the server had it, and is sent again until it has', async () => {
    const lost = new FakeServer()
      .on('GET /api/preferences/columns', { body: { value: { columns: ['sku'] } } })
      .on('PUT /api/preferences/columns', 'lost');
    const first = shown(<Columns />);
    await screen.findByText('sku');
    await userEvent.click(screen.getByRole('checkbox'));
    await waitFor(() => expect(lost.count('PUT /api/preferences/columns')).toBe(1));
    first.unmount();

    const back = new FakeServer()
      .on('GET /api/preferences/columns', { body: { value: { columns: ['sku'] } } })
      .on('PUT /api/preferences/columns', { body: { value: { columns: ['sku', 'tags'] } } });
    const second = shown(<Columns />);
    await screen.findByText('sku tags');
    await waitFor(() => expect(back.asked.at(-1)?.body).toEqual({ value: { columns: ['sku', 'tags'] } }));
    second.unmount();

    // It has arrived: what is arranged elsewhere later counts here too.
    new FakeServer().on('GET /api/preferences/columns', { body: { value: { columns: ['name'] } } });
    shown(<Columns />);
    await screen.findByText('name');
  });
});
