import { renderToStaticMarkup as render } from 'react-dom/server';
import { FormProvider, useForm } from 'react-hook-form';
import { FaultContext } from './fields';
import { RowsField } from './rows-field';

function Services({ rows, faults = {} }: { rows: { code: string; days: string }[]; faults?: Record<string, string> }) {
  const form = useForm({ defaultValues: { services: rows } });
  return (
    <FormProvider {...form}>
      <FaultContext value={(field) => faults[field]}>
        <RowsField
          name="services"
          one="service"
          columns={[
            { name: 'code', label: 'Code', code: true },
            {
              name: 'days',
              label: 'Days',
              options: [
                ['1', 'one day'],
                ['2', 'two days'],
              ],
            },
          ]}
          blank={{ code: '', days: '1' }}
        />
      </FaultContext>
    </FormProvider>
  );
}

describe('a table within a form', () => {
  it('says what to add where there is nothing, and shows no empty heads', () => {
    const html = render(<Services rows={[]} />);
    expect(html).toContain('Add a service');
    expect(html).not.toContain('<table');
  });

  it('names each cell by its column and its row, and how to take the row out', () => {
    const html = render(
      <Services
        rows={[
          { code: 'slow', days: '2' },
          { code: 'fast', days: '1' },
        ]}
      />,
    );
    for (const name of ['Code, service 1', 'Days, service 2', 'Take service 2 out']) expect(html).toContain(`aria-label="${name}"`);
    expect(html).toContain('Another service');
  });

  it('puts what the server says at the cell it is about, and what is about all of it beneath', () => {
    const html = render(
      <Services
        rows={[{ code: '', days: '1' }]}
        faults={{ 'services.0.code': 'A code is 2 to 20 letters', services: 'Two have the same code' }}
      />,
    );
    expect(html).toMatch(/aria-invalid="true"[^]*A code is 2 to 20 letters/);
    expect(html.indexOf('Two have the same code')).toBeGreaterThan(html.indexOf('</table>'));
  });
});
