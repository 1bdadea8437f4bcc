import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useSite } from '../../api/queries';
import { TextButton } from '../../ui/button';
import { day, plural, whole } from '../../ui/format';
import { BlockHead, Sentence } from '../../ui/page';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { DenseTable, LinesTable } from '../../ui/table';
import { useWhy, WhyNumber, WhySum } from '../../ui/why';
import { itemPath } from '../item-path';
import { StockAhead, USUAL, type WhatIf } from './stock-ahead';
import { madeOf, methodSays, pointOf } from './plan-sums';

const DemandChart = lazy(() => import('../../ui/chart/demand-chart'));

type Plan = Dto['ItemPlanDto'];

/** Weeks that the chart begins with; the table has all of them. */
const SHOWN_WEEKS = 78;
const NINE_OF_TEN = 1.645;

/** The plan of one item at a site: each figure opens to what it is made from, down to the weeks. */
export function ItemPlanSheet() {
  const { sku = '' } = useParams();
  const { site } = useSite();
  const siteId = site?.id ?? 0;
  const [whatIf, setWhatIf] = useState<WhatIf>(USUAL);
  const query = useQuery({
    queryKey: key('item-plan', siteId, sku, whatIf),
    queryFn: () =>
      ask(
        api.GET('/api/buying/sites/{siteId}/items/{sku}', {
          params: {
            path: { siteId, sku },
            query: {
              late: String(whatIf.late),
              demand: String(whatIf.demand),
              order: String(whatIf.order),
              none: whatIf.none ? '1' : '0',
            },
          },
        }),
      ),
    enabled: site !== undefined,
    placeholderData: (was, before) => (before?.queryKey[2] === sku ? keepPreviousData(was) : undefined),
  });
  return (
    <ShownSheet query={query} back="/plan">
      {(plan) => (
        <Sheet
          address={`plan/${plan.sku}`}
          title={plan.name}
          back="/plan"
          about={
            <>
              <Link to={itemPath(plan.sku)}>{plan.sku}</Link> at {plan.site}
            </>
          }
        >
          <Figures plan={plan} />
          <Demand plan={plan} />
          <StockAhead plan={plan} whatIf={whatIf} onWhatIf={setWhatIf} />
          <Suppliers plan={plan} />
          <Truths plan={plan} />
        </Sheet>
      )}
    </ShownSheet>
  );
}

function Figures({ plan }: { plan: Plan }) {
  const { open, toggle } = useWhy();
  const units = (n: number) => plural(n, plan.unit, plan.unitPlural);
  const number = (name: string, label: string, shown: string) => (
    <WhyNumber open={open === name} onToggle={() => toggle(name)} label={label}>
      {shown}
    </WhyNumber>
  );
  return (
    <>
      <Waybill
        cells={[
          {
            cap: 'Order now',
            value: plan.proposed > 0 ? units(plan.proposed) : 'nothing',
            note: plan.isDropped ? 'bought no more' : plan.because,
          },
          { cap: 'Free and coming', value: number('position', 'Why so many are free or coming', whole(plan.position)) },
          {
            cap: 'Order at',
            value: plan.point === null ? 'never' : number('point', 'Why it is ordered at this point', whole(plan.point)),
            note: plan.isFixed && plan.fixedPoint !== null ? `set by hand: ${whole(plan.fixedPoint)}` : undefined,
          },
          { cap: 'A week', value: String(Math.round(plan.weekMean * 10) / 10), note: plan.method },
          { cap: 'Runs out', value: plan.usual.runsOutOn === null ? 'not in half a year' : day(plan.usual.runsOutOn) },
        ]}
      />
      {open === 'position' && <WhySum terms={madeOf(plan)} at={140} />}
      {open === 'point' && <WhySum terms={pointOf(plan)} at={260} />}
    </>
  );
}

function Demand({ plan }: { plan: Plan }) {
  const [isTable, setIsTable] = useState(false);
  const past = useMemo(() => plan.history.slice(-SHOWN_WEEKS), [plan.history]);
  const coming = useMemo(
    () =>
      plan.forecast.map((w) => ({
        monday: w.monday,
        mean: w.mean,
        low: Math.max(0, w.mean - NINE_OF_TEN * w.sd),
        high: w.mean + NINE_OF_TEN * w.sd,
      })),
    [plan.forecast],
  );
  const label = methodSays(plan);
  return (
    <section aria-label="Demand" className="mt-5">
      <BlockHead>
        <h2>Asked for, week by week</h2>
        <TextButton type="button" aria-expanded={isTable} onClick={() => setIsTable(!isTable)}>
          {isTable ? 'Chart' : 'Table'}
        </TextButton>
      </BlockHead>
      <Sentence>{label}</Sentence>
      {isTable ? (
        <div className="max-h-[420px] overflow-y-auto" tabIndex={0} role="region" aria-label="Weeks">
          <DenseTable>
            <thead>
              <tr>
                <th>Week</th>
                <th>Begins</th>
                <th className="num">Asked for</th>
                <th className="num">Expected</th>
                <th className="num">Nine of ten times</th>
              </tr>
            </thead>
            <tbody>
              {plan.forecast.map((w, i) => (
                <tr key={w.week}>
                  <td className="code">{w.week}</td>
                  <td>{day(w.monday)}</td>
                  <td className="num">{i === 0 ? 'so far ' + whole(plan.history.at(-1)?.units ?? 0) : ''}</td>
                  <td className="num">{Math.round(w.mean * 10) / 10}</td>
                  <td className="num">
                    {whole(Math.round(coming[i]?.low ?? 0))} to {whole(Math.round(coming[i]?.high ?? 0))}
                  </td>
                </tr>
              ))}
              {[...plan.history]
                .reverse()
                .slice(1)
                .map((w) => (
                  <tr key={w.week} className="soft">
                    <td className="code">{w.week}</td>
                    <td>{day(w.monday)}</td>
                    <td className="num">{whole(w.units)}</td>
                    <td />
                    <td />
                  </tr>
                ))}
            </tbody>
          </DenseTable>
        </div>
      ) : (
        <Suspense fallback={<div style={{ height: 190 }} />}>
          <DemandChart past={past} coming={coming} label={label} />
        </Suspense>
      )}
    </section>
  );
}

function Suppliers({ plan: { suppliers, unit } }: { plan: Plan }) {
  if (suppliers.length === 0) return null;
  return (
    <section aria-label="From whom" className="mt-5">
      <BlockHead>
        <h2>From whom</h2>
      </BlockHead>
      <LinesTable>
        <thead>
          <tr>
            <th>Supplier</th>
            <th>Pack</th>
            <th className="num">Price</th>
            <th>Takes</th>
          </tr>
        </thead>
        <tbody>
          {suppliers.map((s) => (
            <tr key={s.code}>
              <td>
                <Link to={`/inbound/suppliers/${s.code}`}>{s.isChosen ? <b>{s.name}</b> : s.name}</Link>
              </td>
              <td>{s.factor > 1 ? `${s.packPlural} of ${s.factor}` : unit}</td>
              <td className="num">
                {s.price === undefined ? '' : `${Number(s.price).toFixed(2)} ${s.currency}`}
                {s.breaks.map((b) => (
                  <span key={b.from} className="note">
                    {Number(b.price).toFixed(2)} from {b.from}
                  </span>
                ))}
              </td>
              <td>
                {Math.round(s.leadDays)} days
                <span className="note">
                  {s.orders > 0
                    ? `give or take ${Math.round(s.leadSd * 10) / 10}, by the last ${plural(s.orders, 'order', 'orders')}`
                    : 'as it says itself; too few orders have come'}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
    </section>
  );
}

const SAYS: Readonly<Record<string, string>> = {
  taken: 'ordered',
  later: 'put off',
  enough: 'there was enough',
  dropped: 'bought no more',
};

/** What was made of earlier proposals, and what came of it. */
function Truths({ plan: { truths } }: { plan: Plan }) {
  if (truths.length === 0) return null;
  return (
    <section aria-label="Earlier proposals" className="mt-5">
      <BlockHead>
        <h2>Earlier proposals</h2>
      </BlockHead>
      <DenseTable>
        <thead>
          <tr>
            <th>Day</th>
            <th>What was done</th>
            <th className="num">Proposed</th>
            <th className="num">Ordered</th>
            <th className="num">Expected meanwhile</th>
            <th className="num">Asked for</th>
            <th>By</th>
          </tr>
        </thead>
        <tbody>
          {truths.map((t, i) => (
            <tr key={i}>
              <td>{day(t.on)}</td>
              <td>
                {t.document ? <Link to={`/inbound/${t.document}`}>{t.document}</Link> : SAYS[t.says]}
                {t.why && <span className="note">{t.why}</span>}
              </td>
              <td className="num">{t.says === 'taken' ? whole(t.proposed) : ''}</td>
              <td className="num">{t.says === 'taken' ? whole(t.taken) : ''}</td>
              <td className="num">{t.says === 'taken' ? whole(t.expected) : ''}</td>
              <td className="num">
                {t.asked === null ? <span className="mid">{t.says === 'taken' ? 'not over yet' : ''}</span> : whole(t.asked)}
              </td>
              <td>{t.by}</td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
    </section>
  );
}
