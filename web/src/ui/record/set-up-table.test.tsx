import { renderToStaticMarkup as render } from 'react-dom/server';
import { SetUpTable } from './set-up-table';

const zones = [
  { code: 'COLD', name: 'Cold corner', bins: 12 },
  { code: 'CAGE', name: 'Cage', bins: 0 },
];
const table = render(
  <SetUpTable
    rows={zones}
    rowKey={(z) => z.code}
    rowName={(z) => z.name}
    onChange={() => undefined}
    columns={[
      { head: 'Zone', cell: (z) => z.name },
      { head: 'Code', cell: (z) => z.code, code: true },
      { head: 'Places', cell: (z) => z.bins, num: true },
    ]}
  />,
);

describe('the table of what has been set up', () => {
  it('has a row for each, with figures to the right and codes as codes', () => {
    expect(table.match(/<tr>/g)).toHaveLength(3);
    expect(table).toContain('<th class="num">Places</th>');
    expect(table).toContain('<td class="code">COLD</td>');
    expect(table).toContain('<td class="num">0</td>');
  });

  it('tells the acts of its rows apart for those who only hear them', () => {
    expect([...table.matchAll(/aria-label="([^"]*)"/g)].map((m) => m[1])).toEqual(['Change Cold corner', 'Change Cage']);
  });
});
