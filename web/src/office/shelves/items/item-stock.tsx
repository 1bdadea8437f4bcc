import { useQuery } from '@tanstack/react-query';
import { key } from '../../../api/keys';
import { spell } from '@vectrum/core/quantity';
import { Fragment } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { whole } from '../../../ui/format';
import { Shown } from '../../../ui/states';
import { SumRow, useWhy, WhyNumber, WhySum } from '../../../ui/why';
import { LinesTable } from '../../../ui/table';
import { BlockHead } from '../../../ui/page';

type Item = Dto['ItemDto'];
type Figures = Dto['StockFigureDto'];

const FIGURES: readonly (readonly [figure: string, head: string, of: (s: Figures) => number, strong: boolean])[] = [
  ['on-hand', 'On hand', (s) => s.onHand, true],
  ['held', 'Held', (s) => s.held, false],
  ['reserved', 'Reserved', (s) => s.reserved, false],
  ['available', 'Available', (s) => s.available, true],
  ['incoming', 'On order', (s) => s.incoming, false],
  ['projected', 'Projected', (s) => s.projected, false],
];

function useSum(sku: string, open: string | null) {
  const [figure = '', siteId = ''] = (open ?? '').split('/');
  return useQuery({
    queryKey: key('why', sku, open),
    queryFn: () => ask(api.GET('/api/items/{sku}/why/{figure}/{siteId}', { params: { path: { sku, figure, siteId } } })),
    enabled: open !== null,
  });
}

/** Stock by site, with the sum behind each figure, and where it lies by bin, lot and condition. */
export function ItemStock({ item }: { item: Item }) {
  const stock = useQuery({
    queryKey: key('stock', item.sku),
    queryFn: () => ask(api.GET('/api/items/{sku}/stock', { params: { path: { sku: item.sku } } })),
  });
  const why = useWhy();
  const sum = useSum(item.sku, why.open);
  return (
    <Shown query={stock} rows={4}>
      {({ sites, bins }) => (
        <>
          <LinesTable>
            <thead>
              <tr>
                <th>Site</th>
                {FIGURES.map(([key, head]) => (
                  <th key={key} className="num">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {sites.map((s) => (
                <Fragment key={s.siteId}>
                  <tr>
                    <td>
                      <b>{s.site}</b>
                      <span className="note">{spell(s.onHand, item.packs)}</span>
                    </td>
                    {FIGURES.map(([figure, head, of, strong]) => (
                      <td key={figure} className={`num ${strong ? '' : 'mid'}`}>
                        <WhyNumber
                          label={`Why: ${head.toLowerCase()} at ${s.site}`}
                          open={why.open === `${figure}/${s.siteId}`}
                          onToggle={() => why.toggle(`${figure}/${s.siteId}`)}
                        >
                          {whole(of(s))}
                        </WhyNumber>
                      </td>
                    ))}
                  </tr>
                  {why.open?.endsWith(`/${s.siteId}`) && (
                    <SumRow columns={FIGURES.length + 1}>
                      <WhySum
                        terms={sum.data}
                        at={20 + (FIGURES.length - 1 - FIGURES.findIndex(([f]) => why.open?.startsWith(`${f}/`))) * 78}
                      />
                    </SumRow>
                  )}
                </Fragment>
              ))}
            </tbody>
          </LinesTable>
          <BlockHead className="mt-4">
            <h2>Where it lies</h2>
            <span className="note">{bins.length === 0 ? 'nowhere' : `${bins.length} places`}</span>
          </BlockHead>
          <div className="grid gap-x-6" style={{ gridTemplateColumns: 'repeat(2, minmax(0,1fr))' }}>
            {bins.map((b) => (
              <div key={`${b.place}${b.lot}${b.condition}`} className="flex gap-3 items-baseline border-b border-rule py-1">
                <Link to={`/shelves/places/${b.place}`} className="code">
                  {b.place}
                </Link>
                <span className="note">
                  {b.kind.replace('-', ' ')}
                  {b.lot && (
                    <>
                      , {item.tracking === 'serial' ? 'no.' : 'lot'}{' '}
                      <Link to={`/shelves/trace?sku=${encodeURIComponent(item.sku)}&lot=${encodeURIComponent(b.lot)}`}>{b.lot}</Link>
                    </>
                  )}
                  {b.expires && `, until ${b.expires}`}
                  {b.condition !== 'good' && `, ${b.condition.replace('-', ' ')}`}
                </span>
                <b className="ml-auto">{whole(b.units)}</b>
              </div>
            ))}
          </div>
        </>
      )}
    </Shown>
  );
}
