import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useMemo } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { when, whole } from '../../ui/format';
import { Shown } from '../../ui/states';
import { DenseTable } from '../../ui/table';

const StepsChart = lazy(() => import('../../ui/chart/steps-chart'));
const DAY_MS = 86_400_000;
const LEAST_DAYS = 7;

/** What a projection says, in a sentence: what may be promised now, and when more. */
export function projectionWords({ name, steps }: Pick<Dto['ProjectionDto'], 'name' | 'steps'>): string {
  const now = Math.max(0, steps[0]?.units ?? 0);
  const most = steps.reduce((n, s) => Math.max(n, s.units), 0);
  const first = steps.find((s) => s.units > now);
  const begins = `${whole(now)} of ${name} may be promised now`;
  if (!first) return `${begins}, and no more is to come`;
  const top = steps.find((s) => s.units === most);
  return `${begins}, ${whole(first.units)} from ${when(first.at)}${top && top !== first ? `, ${whole(most)} from ${when(top.at)}` : ''}`;
}

/** What may be promised of an item at a site over time: a sentence, a chart and the documents behind it. */
export function PromiseChart({ sku, siteId }: { sku: string; siteId: number }) {
  const query = useQuery({
    queryKey: key('projection', sku, siteId),
    queryFn: () => ask(api.GET('/api/items/{sku}/promise/{siteId}', { params: { path: { sku, siteId } } })),
  });
  return <Shown query={query}>{(projection) => <Projection projection={projection} />}</Shown>;
}

function Projection({ projection: p }: { projection: Dto['ProjectionDto'] }) {
  const steps = useMemo(() => p.steps.map((s) => ({ at: new Date(s.at).getTime(), units: s.units })), [p.steps]);
  const first = steps[0]?.at ?? 0;
  const until = Math.max(first + LEAST_DAYS * DAY_MS, (steps.at(-1)?.at ?? 0) + 2 * DAY_MS);
  const says = projectionWords(p);
  return (
    <section aria-label={`What may be promised of ${p.name}`}>
      <p className="font-semibold py-1">{says}.</p>
      <Suspense fallback={<div style={{ height: 190 }} />}>
        <StepsChart steps={steps} until={until} label={says} />
      </Suspense>
      {p.flows.length > 0 && (
        <DenseTable className="w-full">
          <thead>
            <tr>
              <th>When</th>
              <th>Document</th>
              <th>Who</th>
              <th className="num">Comes or goes</th>
            </tr>
          </thead>
          <tbody>
            {p.flows.map((f, i) => (
              <tr key={i}>
                <td className="mid">{when(f.at)}</td>
                <td className="code">
                  <Link to={f.units > 0 ? `/inbound/${f.document}` : `/orders/${f.document}`}>{f.document}</Link>
                </td>
                <td>{f.who}</td>
                <td className="num strong">{f.units > 0 ? `+${whole(f.units)}` : whole(f.units)}</td>
              </tr>
            ))}
          </tbody>
        </DenseTable>
      )}
    </section>
  );
}
