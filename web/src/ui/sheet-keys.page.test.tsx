/** @jest-environment ./jest-page.js */
import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes, useParams } from 'react-router';
import { shown } from '../testing/house';
import { ListPage } from './list-page';
import { OpenRow } from './open-row';
import { Sheet } from './sheet';

const ORDERS = ['S-1', 'S-2', 'S-3'];

function Orders() {
  const { code } = useParams();
  return (
    <ListPage title="Orders" width={400}>
      <table>
        <tbody>
          {ORDERS.map((o) => (
            <OpenRow key={o} to={`/orders/${o}`} open={o === code}>
              <td>{o}</td>
            </OpenRow>
          ))}
        </tbody>
      </table>
    </ListPage>
  );
}
function Order() {
  const { code = '' } = useParams();
  return (
    <Sheet address={`orders/${code}`} title={`Order ${code}`} back="/orders">
      <input aria-label="Note" />
      <button type="button">Release</button>
    </Sheet>
  );
}
const page = () =>
  shown(
    <Routes>
      <Route path="/orders" element={<Orders />}>
        <Route path=":code" element={<Order />} />
      </Route>
    </Routes>,
    { at: '/orders' },
  );
const focused = () => document.activeElement as HTMLElement;
const row = (code: string) => screen.getByRole('row', { name: code });
/** What is left for the next turn of the page, such as the way back to the row. */
const nextTurn = () => act(() => new Promise((done) => setTimeout(done)));

describe('a list and its sheet, by keyboard', () => {
  beforeAll(() => {
    Element.prototype.scrollIntoView = () => undefined;
  });

  it('Enter leads into the sheet, Escape back to the row', async () => {
    const user = userEvent.setup();
    page();
    row('S-2').focus();
    await user.keyboard('{Enter}');
    expect(screen.getByRole('heading', { name: 'Order S-2' })).toBeTruthy();
    expect(focused().closest('.sheet')).not.toBeNull();
    await user.tab();
    expect(focused().textContent).toContain('Close');
    await user.keyboard('{Escape}');
    await nextTurn();
    expect(screen.queryByRole('complementary')).toBeNull();
    expect(focused()).toBe(row('S-2'));
  });

  it('the arrows step through the list while it is open, and Escape goes to the one that is shown', async () => {
    const user = userEvent.setup();
    page();
    row('S-1').focus();
    await user.keyboard('{Enter}{ArrowDown}{ArrowDown}{ArrowDown}');
    expect(screen.getByRole('heading', { name: 'Order S-3' })).toBeTruthy();
    expect(focused().closest('.sheet')).not.toBeNull();
    await user.keyboard('{ArrowUp}');
    expect(screen.getByRole('heading', { name: 'Order S-2' })).toBeTruthy();
    await user.keyboard('{Escape}');
    await nextTurn();
    expect(focused()).toBe(row('S-2'));
  });

  it('Escape in a field leaves the field first', async () => {
    const user = userEvent.setup();
    page();
    row('S-1').focus();
    await user.keyboard('{Enter}');
    await user.type(screen.getByLabelText('Note'), 'fragile');
    await user.keyboard('{Escape}');
    expect(screen.getByLabelText<HTMLInputElement>('Note').value).toBe('fragile');
    expect(focused().className).toBe('sheet-in');
    await user.keyboard('{Escape}');
    await nextTurn();
    expect(focused()).toBe(row('S-1'));
  });

  it('Close goes back to the row too', async () => {
    const user = userEvent.setup();
    page();
    await user.click(row('S-3'));
    await user.click(screen.getByRole('button', { name: 'Close' }));
    await nextTurn();
    expect(focused()).toBe(row('S-3'));
  });

  it('what lies above the sheet hears Escape first', async () => {
    const user = userEvent.setup();
    page();
    row('S-1').focus();
    await user.keyboard('{Enter}');
    const menu = (e: KeyboardEvent) => e.key === 'Escape' && e.preventDefault();
    document.addEventListener('keydown', menu, { once: true, capture: true });
    await user.keyboard('{Escape}');
    expect(screen.getByRole('heading', { name: 'Order S-1' })).toBeTruthy();
  });
});
