/** @jest-environment ./jest-page.js */
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ProblemError } from '../api/client';
import { shown } from '../testing/house';
import { SecretSection } from './secret-section';

const section = (give: () => Promise<string>, has = false) =>
  shown(
    <SecretSection
      label="Secret"
      says="It has no secret yet."
      word="secret"
      has={has}
      give={give}
      signs="each order"
      address="/api/channels/WEB/webhook"
      more="The one before is void."
    />,
  );

describe('a secret of the other side', () => {
  it('is shown once it was given, with where it is used and that it is not shown again', async () => {
    section(() => Promise.resolve('s3cret'));
    expect(screen.queryByRole('status')).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Give it a secret' }));
    const says = (await screen.findByRole('status')).textContent;
    for (const part of ['shown once', 's3cret', 'each order', '/api/channels/WEB/webhook', 'The one before is void.'])
      expect(says).toContain(part);
  });

  it('is not made up where it could not be given', async () => {
    section(() => Promise.reject(new ProblemError(403, 'rights', 'Setting up channels is not among your duties')), true);
    await userEvent.click(screen.getByRole('button', { name: 'Give it a new secret' }));
    expect((await screen.findByRole('alert')).textContent).toContain('not among your duties');
    expect(screen.queryByRole('status')).toBeNull();
  });
});
