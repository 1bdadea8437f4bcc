/** @jest-environment ./jest-page.js */
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { key } from '../api/keys';
import { FakeServer, shown } from '../testing/house';
import { PassingWord } from './on-passing';

const at = (rights: string[]) => {
  const view = shown(null);
  view.client.setQueryData(key('me'), { id: 1, rights });
  view.again(<PassingWord code="A-01-1" />);
  return view;
};

describe('somebody at other work who stands at a bin', () => {
  it('is told what is to be counted there, and begins it in one press', async () => {
    const server = new FakeServer()
      .on('GET /api/places/A-01-1/passing', { body: { due: 3, count: null } })
      .on('POST /api/places/A-01-1/passing', { body: { code: 'C-7' } });
    at(['count']);
    await userEvent.click(await screen.findByRole('button', { name: 'A-01-1: 3 lines to check' }));
    await waitFor(() => expect(server.count('POST /api/places/A-01-1/passing')).toBe(1));
  });

  it('is told that it is in a count, and of nothing where nothing is due', async () => {
    new FakeServer().on('GET /api/places/A-01-1/passing', { body: { due: 0, count: 'C-3' } });
    const counted = at(['count']);
    await screen.findByRole('button', { name: 'A-01-1: in a count, count it' });
    counted.unmount();
    const server = new FakeServer().on('GET /api/places/A-01-1/passing', { body: { due: 0, count: null } });
    at(['count']);
    await waitFor(() => expect(server.count('GET /api/places/A-01-1/passing')).toBe(1));
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('is not asked where counting is no duty of theirs', () => {
    const server = new FakeServer();
    at(['pick']);
    expect(server.asked).toEqual([]);
  });
});
