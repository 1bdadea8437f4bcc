/** @jest-environment ./jest-page.js */
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ProblemError } from '../../api/client';
import { shown } from '../../testing/house';
import { RecordBody } from './record-form';
import { RowsField } from './rows-field';
import { useRecord } from './use-record';

interface Taxes {
  rates: { code: string; percent: string; kind: string }[];
}
const WORDS = { rates: { label: 'Taxes' } };

function Form({ save }: { save: (values: Taxes) => Promise<unknown> }) {
  const record = useRecord<Taxes, unknown>({
    source: { values: { rates: [{ code: 'STD', percent: '20', kind: 'goods' }] }, version: 1 },
    save,
  });
  return (
    <RecordBody record={record} words={WORDS} keep="Keep">
      <RowsField
        name="rates"
        one="tax"
        columns={[
          { name: 'code', label: 'Tax', code: true },
          { name: 'percent', label: 'Per cent', num: true },
          {
            name: 'kind',
            label: 'On',
            options: [
              ['goods', 'goods'],
              ['freight', 'freight'],
            ],
          },
        ]}
        blank={{ code: '', percent: '', kind: 'goods' }}
      />
    </RecordBody>
  );
}

describe('rows that are written within a form', () => {
  it('are added, typed, taken out and sent in their order', async () => {
    const save = jest.fn((_: Taxes) => Promise.resolve());
    shown(<Form save={save} />);
    await userEvent.click(screen.getByRole('button', { name: 'Another tax' }));
    await userEvent.type(screen.getByLabelText('Tax, tax 2'), 'LOW');
    await userEvent.type(screen.getByLabelText('Per cent, tax 2'), '5.5');
    await userEvent.selectOptions(screen.getByLabelText('On, tax 2'), 'freight');
    await userEvent.click(screen.getByRole('button', { name: 'Take tax 1 out' }));
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    expect(save.mock.calls[0]?.[0]).toEqual({ rates: [{ code: 'LOW', percent: '5.5', kind: 'freight' }] });
  });

  it('say in the row what the server has against it', async () => {
    const fault = new ProblemError(400, 'form', 'Look at the form', { 'rates.0.percent': 'A rate is per cent, such as 20' });
    shown(<Form save={() => Promise.reject(fault)} />);
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    expect(screen.getByText('A rate is per cent, such as 20')).toBeTruthy();
    expect(screen.getByLabelText('Per cent, tax 1').getAttribute('aria-invalid')).toBe('true');
  });

  it('offer the first one by another word once none is left', async () => {
    shown(<Form save={() => Promise.resolve()} />);
    await userEvent.click(screen.getByRole('button', { name: 'Take tax 1 out' }));
    expect(screen.getByRole('button', { name: 'Add a tax' })).toBeTruthy();
    expect(screen.queryByRole('table')).toBeNull();
  });
});
