/** @jest-environment ./jest-page.js */
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { FakeServer, shown } from '../testing/house';
import { api, ask } from './client';
import { useAct } from './use-act';

const ROUTE = 'PUT /api/company/settings/overPercent';

function Act() {
  const set = useAct({
    act: (value: string, once) =>
      ask(api.PUT('/api/company/settings/{name}', { params: { path: { name: 'overPercent' } }, body: { value }, headers: once })),
  });
  return (
    <>
      <button onClick={() => set.mutate('5')}>Five</button>
      <button onClick={() => set.mutate('7')}>Seven</button>
      <p>{set.isError ? set.error.message : set.isSuccess ? 'done' : 'waiting'}</p>
    </>
  );
}

describe('one act of a person', () => {
  const setup = () => {
    const server = new FakeServer();
    shown(<Act />);
    const press = (name: string) => userEvent.click(screen.getByRole('button', { name }));
    const keys = () => server.asked.map((a) => a.headers.get('idempotency-key'));
    return { server, press, keys };
  };

  it('has a key of its own', async () => {
    const { server, press, keys } = setup();
    server.on(ROUTE, { status: 204 });
    await press('Five');
    await screen.findByText('done');
    await press('Five');
    await screen.findByText('done');
    expect(new Set(keys()).size).toBe(2);
  });

  it('is sent under the same key when its answer was lost, so that it is done once', async () => {
    const { server, press, keys } = setup();
    server.on(ROUTE, 'lost');
    await press('Five');
    await screen.findByText(/fetch/i);
    server.on(ROUTE, { status: 204 });
    await press('Five');
    await screen.findByText('done');
    expect(keys()).toHaveLength(2);
    expect(new Set(keys()).size).toBe(1);
  });

  it('gets a new key once the server has refused it', async () => {
    const { server, press, keys } = setup();
    server.on(ROUTE, { status: 409, body: { code: 'state', detail: 'Not now' } });
    await press('Five');
    await screen.findByText('Not now');
    await press('Five');
    await screen.findByText('Not now');
    expect(new Set(keys()).size).toBe(2);
  });

  it('says that the first one did arrive where another one follows a lost answer', async () => {
    const { server, press } = setup();
    server.on(ROUTE, 'lost');
    await press('Five');
    await screen.findByText(/fetch/i);
    server.on(ROUTE, { status: 422, body: { code: 'key-reused', detail: 'Another body under this key' } });
    await press('Seven');
    await screen.findByText(/did arrive, though no answer came back/);
  });

  it('is one where it is clicked twice, and another where something else is pressed or it is pressed again', async () => {
    const { server, press, keys } = setup();
    server.on(ROUTE, { status: 204 });
    await userEvent.dblClick(screen.getByRole('button', { name: 'Five' }));
    await screen.findByText('done');
    expect(keys()).toHaveLength(1);
    await press('Seven');
    await press('Seven');
    await screen.findByText('done');
    expect(new Set(keys()).size).toBe(3);
  });
});
