/** @jest-environment ./jest-page.js */
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { FakeServer, shown } from '../testing/house';
import { FeedKeys } from './feed-keys';

const key = (more: object = {}) => ({ id: 3, name: 'the sales spreadsheet', madeAt: '2026-11-02T09:00:00Z', usedAt: null, ...more });
const open = (keys: object[]) => {
  const server = new FakeServer().on('GET /api/feeds/keys', { body: keys });
  shown(<FeedKeys />);
  return server;
};
const make = async (name: string) => {
  await userEvent.type(screen.getByLabelText('What reads with it'), name);
  await userEvent.click(screen.getByRole('button', { name: 'Make a key' }));
};

describe('keys for other programs', () => {
  it('are told once, when they are made', async () => {
    const server = open([]);
    expect(await screen.findByText('No program reads with a key of yours.')).toBeTruthy();
    server.on('POST /api/feeds/keys', { status: 201, body: { id: 4, key: 'abc-DEF_123' } });
    expect(screen.getByRole('button', { name: 'Make a key' }).hasAttribute('disabled')).toBe(true);
    await make('the planner');
    expect(await screen.findByText('abc-DEF_123')).toBeTruthy();
    expect(server.asked.find((a) => a.method === 'POST')!.body).toEqual({ name: 'the planner' });
    expect(screen.getByLabelText<HTMLInputElement>('What reads with it').value).toBe('');
  });

  it('say what to do where one was lost on the way', async () => {
    const server = open([key()]);
    server.on('POST /api/feeds/keys', { status: 201, body: { id: 4, key: null } });
    await make('the planner');
    expect(await screen.findByText(/Its key was lost on the way/)).toBeTruthy();
  });

  it('are taken away, and say when they were last used', async () => {
    const server = open([key(), key({ id: 5, name: 'old', usedAt: '2026-11-03T10:00:00Z' })]);
    server.on('DELETE /api/feeds/keys/5', { body: { id: 5 } });
    expect(await screen.findByText('never used')).toBeTruthy();
    expect(screen.getByText(/^last used/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Take the key old away' }));
    expect(server.count('DELETE /api/feeds/keys/5')).toBe(1);
  });
});
