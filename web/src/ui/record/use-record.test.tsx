/** @jest-environment ./jest-page.js */
import { act, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ProblemError } from '../../api/client';
import { shown } from '../../testing/house';
import { TextField } from './fields';
import { RecordBody } from './record-form';
import { anythingUnkept, draftAt } from './unkept';
import { type Source, useRecord } from './use-record';

interface Customer extends Record<string, string> {
  name: string;
  phone: string;
}
const WORDS = { name: { label: 'Name' }, phone: { label: 'Phone' } };
type Save = (values: Customer, version: number | undefined) => Promise<unknown>;

function Form({ source, save, onSaved }: { source: Source<Customer>; save: Save; onSaved?: () => void }) {
  const record = useRecord<Customer, unknown>({ source, save, ...(onSaved ? { onSaved } : {}) });
  return (
    <RecordBody record={record} words={WORDS} keep={record.form.formState.isDirty ? 'Keep the changes' : 'Keep'}>
      <TextField name="name" label="Name" />
      <TextField name="phone" label="Phone" />
    </RecordBody>
  );
}

const first: Source<Customer> = { values: { name: 'Wick Hill', phone: '1' }, version: 1 };
const from = (name: string, phone: string, version: number): Source<Customer> => ({ values: { name, phone }, version });
const name = () => screen.getByLabelText<HTMLInputElement>('Name');
const phone = () => screen.getByLabelText<HTMLInputElement>('Phone');
const keep = () => screen.getByRole('button', { name: /Keep( the changes)?$|Choose what stays first/ });
const otherVersion = () => new ProblemError(412, 'version', 'Somebody changed this meanwhile');

describe('a form over a record that others may change', () => {
  const setup = (save: Save = () => Promise.resolve(), onSaved?: () => void) => {
    const user = userEvent.setup();
    const form = (source: Source<Customer>) => <Form source={source} save={save} {...(onSaved ? { onSaved } : {})} />;
    const view = shown(form(first));
    return { user, moveOn: (source: Source<Customer>) => view.again(form(source)) };
  };

  it('keeps what was typed, and takes over what only others have changed', async () => {
    const { user, moveOn } = setup();
    await user.clear(name());
    await user.type(name(), 'Wick Hill Farm');
    moveOn(from('Wick Hill', '2', 2));
    expect(name().value).toBe('Wick Hill Farm');
    expect(phone().value).toBe('2');
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('shows both values of a field that both have changed, and waits for the choice', async () => {
    const save = jest.fn(() => Promise.resolve());
    const { user, moveOn } = setup(save);
    await user.type(name(), ' Farm');
    moveOn(from('Wick Hill Shop', '1', 2));
    const alert = screen.getByRole('alert');
    expect(alert.textContent).toContain('Wick Hill Farm');
    expect(alert.textContent).toContain('Wick Hill Shop');
    expect((keep() as HTMLButtonElement).disabled).toBe(true);
    await user.click(screen.getByRole('button', { name: 'Take theirs' }));
    expect(name().value).toBe('Wick Hill Shop');
    await user.click(keep());
    expect(save).toHaveBeenCalledWith({ name: 'Wick Hill Shop', phone: '1' }, 2, expect.anything());
  });

  it('keeps mine where I say so, over the version that I have seen', async () => {
    const save = jest.fn(() => Promise.resolve());
    const { user, moveOn } = setup(save);
    await user.type(name(), ' Farm');
    moveOn(from('Wick Hill Shop', '1', 2));
    await user.click(screen.getByRole('button', { name: 'Keep yours' }));
    await user.click(keep());
    expect(save).toHaveBeenCalledWith({ name: 'Wick Hill Farm', phone: '1' }, 2, expect.anything());
  });

  it('is sent again by itself where the record moved on beneath it and nobody has to choose', async () => {
    const save = jest
      .fn<Promise<unknown>, [Customer, number | undefined]>()
      .mockRejectedValueOnce(otherVersion())
      .mockResolvedValueOnce({});
    const saved = jest.fn();
    const { user, moveOn } = setup(save, saved);
    await user.type(name(), ' Farm');
    await user.click(keep());
    await act(async () => {
      moveOn(from('Wick Hill', '2', 2));
      await Promise.resolve();
    });
    expect(screen.queryByRole('alert')).toBeNull();
    expect(save.mock.calls.map(([values, version]) => [values.phone, version])).toEqual([
      ['1', 1],
      ['2', 2],
    ]);
    expect(saved).toHaveBeenCalledTimes(1);
  });

  it('asks before it is sent again where both have changed one field', async () => {
    const save = jest.fn<Promise<unknown>, [Customer, number | undefined]>().mockRejectedValueOnce(otherVersion());
    const { user, moveOn } = setup(save);
    await user.type(name(), ' Farm');
    await user.click(keep());
    await act(async () => {
      moveOn(from('Wick Hill Shop', '1', 2));
      await Promise.resolve();
    });
    expect(save).toHaveBeenCalledTimes(1);
    expect(screen.getByRole('alert').textContent).toContain('Choose what stays');
  });

  it('stays open on what was kept where it leads nowhere', async () => {
    const { user } = setup();
    await user.type(phone(), '23');
    expect(keep().textContent).toContain('Keep the changes');
    await user.click(keep());
    expect(phone().value).toBe('123');
    expect(keep().textContent).not.toContain('changes');
  });

  it('takes what the server made of what was kept, though it is read before the answer comes', async () => {
    let answer: (value: unknown) => void = () => undefined;
    const { user, moveOn } = setup(() => new Promise((done) => (answer = done)));
    await user.type(name(), ' Farm');
    await user.click(keep());
    moveOn(from('Wick Hill Farm Ltd', '1', 2));
    expect(name().value).toBe('Wick Hill Farm');
    await user.type(phone(), '7');
    answer({});
    await waitFor(() => expect(name().value).toBe('Wick Hill Farm Ltd'));
    expect(screen.queryByRole('alert')).toBeNull();
    expect(phone().value).toBe('17');
    expect(keep().textContent).toContain('Keep the changes');
  });

  it('has nothing to keep where only others have changed it', () => {
    const { moveOn } = setup();
    moveOn(from('Wick Hill', '2', 2));
    expect(phone().value).toBe('2');
    expect(keep().textContent).not.toContain('changes');
  });

  it('is there after the page was loaded anew, with what others have changed meanwhile, and can be begun afresh', async () => {
    const user = userEvent.setup();
    const form = (source: Source<Customer>) => <Form source={source} save={() => Promise.resolve()} />;
    const view = shown(form(first));
    await user.type(name(), ' Farm');
    await waitFor(() => expect(draftAt('/#')).not.toBeNull());
    // As a reload does it: nothing of the page hears of its end.
    const kept = { ...window.sessionStorage };
    view.unmount();
    expect(draftAt('/#')).toBeNull();
    for (const [at, text] of Object.entries(kept)) window.sessionStorage.setItem(at, text as string);
    shown(form(from('Wick Hill', '2', 2)));
    expect(name().value).toBe('Wick Hill Farm');
    expect(phone().value).toBe('2');
    expect(anythingUnkept()).toBe(true);
    await user.click(screen.getByRole('button', { name: 'Begin afresh' }));
    expect(name().value).toBe('Wick Hill');
    expect(anythingUnkept()).toBe(false);
  });

  it('holds nobody who has kept it', async () => {
    let asked: boolean | undefined;
    const { user } = setup(
      () => Promise.resolve(),
      () => (asked = anythingUnkept()),
    );
    await user.type(name(), ' Farm');
    expect(anythingUnkept()).toBe(true);
    await user.click(keep());
    expect(asked).toBe(false);
    expect(draftAt('/#')).toBeNull();
  });

  it('says beside the field what the server has against it, and keeps what was typed', async () => {
    const { user } = setup(() => Promise.reject(new ProblemError(400, 'form', 'Look at the form', { name: 'Type a name' })));
    await user.clear(name());
    await user.click(keep());
    expect(screen.getByText('Type a name')).toBeTruthy();
    expect(phone().value).toBe('1');
  });
});
