/** @jest-environment ./jest-page.js */
import { act, render, screen } from '@testing-library/react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { useAddress, withParam } from './address';

function Page() {
  const [params, change] = useAddress();
  return (
    <>
      <output>{params.toString()}</output>
      <button
        onClick={() => {
          change((p) => withParam(p, 'by', 'customer'));
          change((p) => withParam(p, 'search', 'Zenith'));
        }}
      >
        Both
      </button>
      <button onClick={() => change((p) => withParam(p, 'by', ''))}>None</button>
    </>
  );
}

it('keeps both of two changes that are made in one breath, and what was there', async () => {
  const router = createMemoryRouter([{ path: '/', element: <Page /> }], { initialEntries: ['/?show=all'] });
  render(<RouterProvider router={router} />);
  const press = (name: string) => act(() => Promise.resolve(screen.getByRole('button', { name }).click()));
  await press('Both');
  expect(screen.getByRole('status').textContent).toBe('show=all&by=customer&search=Zenith');
  await press('None');
  expect(screen.getByRole('status').textContent).toBe('show=all&search=Zenith');
});
