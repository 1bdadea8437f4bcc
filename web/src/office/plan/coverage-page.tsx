import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe, useSite } from '../../api/queries';
import { useAsked } from '../../ui/asked';
import { plural, whole } from '../../ui/format';
import { BlockHead, Page, Sentence } from '../../ui/page';
import { Picture } from '../../ui/picture';
import { Empty, Shown } from '../../ui/states';
import { DenseTable, LinesTable, PictureCell } from '../../ui/table';
import { planPath } from './basket';
import { PlanWords } from './plan-words';
import { SiteWords } from './site-words';

type Field = Dto['CoverFieldDto'];

const WORTH = [
  ['A', 'the few that make four fifths of what a year costs'],
  ['B', 'those up to nineteen twentieths'],
  ['C', 'the many that are left'],
] as const;
const EVEN = [
  ['X', 'even weeks'],
  ['Y', 'uneven'],
  ['Z', 'now and then'],
] as const;

/** How long stock lasts over the whole range, by what it costs and how even it goes; a field opens to its items. */
export function CoveragePage() {
  const { site } = useSite();
  const siteId = site?.id ?? 0;
  const { asked } = useAsked();
  const field = asked('field');
  const query = useQuery({
    queryKey: key('coverage', siteId, field),
    queryFn: () => ask(api.GET('/api/buying/sites/{siteId}/coverage', { params: { path: { siteId }, query: { field } } })),
    enabled: site !== undefined,
    placeholderData: (was) => was,
  });
  return (
    <Page aria-label="Coverage">
      <h1 className="sr">Coverage</h1>
      <PlanWords at="coverage">
        <SiteWords />
      </PlanWords>
      <Shown query={query}>
        {(coverage) =>
          coverage.items === 0 ? (
            <Empty title="Nothing is planned here yet">Items are planned once somebody has asked for them.</Empty>
          ) : (
            <>
              <Sentence className="mt-2">{says(coverage.fields)}</Sentence>
              <Map fields={coverage.fields} open={field} />
              {field && <Rows rows={coverage.rows} field={field} />}
            </>
          )
        }
      </Shown>
    </Page>
  );
}

function says(fields: readonly Field[]): string {
  const items = fields.reduce((n, f) => n + f.items, 0);
  const out = fields.reduce((n, f) => n + f.out, 0);
  const few = fields.filter((f) => f.field.startsWith('A')).reduce((n, f) => n + f.items, 0);
  return `${plural(items, 'item is', 'items are')} planned; ${few} of them make four fifths of a year’s cost. ${out === 0 ? 'Of none that is asked for nothing is free' : `Of ${out} that are asked for nothing is free`}`;
}

function Map({ fields, open }: { fields: readonly Field[]; open: string }) {
  const me = useMe();
  const of = (name: string) => fields.find((f) => f.field === name);
  return (
    <LinesTable className="mt-3" aria-label="By worth and evenness">
      <thead>
        <tr>
          <td />
          {EVEN.map(([even, words]) => (
            <th key={even}>
              {even}, {words}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {WORTH.map(([worth, words]) => (
          <tr key={worth}>
            <td>
              <b>{worth}</b>
              <span className="note">{words}</span>
            </td>
            {EVEN.map(([even]) => {
              const f = of(`${worth}${even}`);
              if (!f || f.items === 0)
                return (
                  <td key={even} className="mid">
                    none
                  </td>
                );
              return (
                <td key={even} className={open === f.field ? 'open' : undefined}>
                  <Link to={`/plan/coverage?field=${f.field}`} aria-current={open === f.field ? 'true' : undefined}>
                    <b>{plural(f.items, 'item', 'items')}</b>
                  </Link>
                  <span className="note">
                    {f.weeks === null ? 'nothing asked for' : `lasts ${f.weeks} weeks`}
                    {f.stockValue !== undefined && ` · ${whole(Math.round(Number(f.stockValue)))} ${me.data?.homeCurrency ?? ''} there`}
                  </span>
                  {f.out > 0 && <span className="note stamped">{f.out} with nothing free</span>}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}

function Rows({ rows, field }: { rows: Dto['CoverageDto']['rows']; field: string }) {
  if (rows.length === 0) return null;
  return (
    <section aria-label={`Items of ${field}`} className="mt-5">
      <BlockHead>
        <h2>{field}</h2>
        <span className="note">what runs out first is first</span>
      </BlockHead>
      <DenseTable>
        <thead>
          <tr>
            <td />
            <th>Goods</th>
            <th className="num">Free</th>
            <th className="num">Coming</th>
            <th className="num">A week</th>
            <th className="num">Give or take</th>
            <th>Forecast by</th>
            <th className="num">Order at</th>
            <th className="num">Lasts</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.sku}>
              <PictureCell>
                <Picture name={r.picture} size={22} />
              </PictureCell>
              <td>
                <Link to={planPath(r.sku)}>{r.name}</Link>
              </td>
              <td className="num">{whole(r.free)}</td>
              <td className="num">{r.onOrder > 0 ? whole(r.onOrder) : ''}</td>
              <td className="num">{r.weekMean}</td>
              <td className="num">{r.weekSd}</td>
              <td className="mid">{r.method}</td>
              <td className="num">{r.point === null ? '' : whole(r.point)}</td>
              <td className="num">{r.coverDays === null ? 'for ever' : `${whole(r.coverDays)} d`}</td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
    </section>
  );
}
