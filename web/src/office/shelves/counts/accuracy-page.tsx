import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { lazy, Suspense } from 'react';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { Days, useAsked } from '../../../ui/asked';
import { Words } from '../../../ui/field';
import { whole } from '../../../ui/format';
import { Page, Sentence } from '../../../ui/page';
import { Empty, Shown } from '../../../ui/states';
import { LinesTable } from '../../../ui/table';
import { ShelvesWords } from '../shelves-words';

const BarsChart = lazy(() => import('../../../ui/chart/bars-chart'));
const BY = [
  { value: 'zone', says: 'By aisle' },
  { value: 'class', says: 'By class' },
  { value: 'person', says: 'By person' },
] as const;
type By = (typeof BY)[number]['value'];
const HEADS: Readonly<Record<By, string>> = { zone: 'Aisle', class: 'Class', person: 'Counted by' };

/** How right counts have found the books: over time, and by where, what and who. */
export function AccuracyPage() {
  const me = useMe();
  const { asked, put } = useAsked();
  const [from, to] = [asked('from'), asked('to')];
  const by = BY.find((b) => b.value === asked('by'))?.value ?? 'zone';
  const query = useQuery({
    queryKey: key('accuracy', from, to, by),
    queryFn: () => ask(api.GET('/api/counts/accuracy', { params: { query: { from, to, by } } })),
    placeholderData: (was) => was,
  });
  const money = (text: string | null) => (text === null ? '' : moneyText(micro(text), me.data?.homeCurrency));
  return (
    <Page aria-label="How right we are">
      <h1 className="sr">How right we are</h1>
      <ShelvesWords at="counts" />
      <div className="flex flex-wrap gap-x-5 gap-y-2 items-center mb-3 mt-2">
        <Words<By> label="Grouped" value={by} words={[...BY]} onChange={(v) => put('by', v, 'zone')} />
        <Days asked={asked} put={put} says="counted from" />
      </div>
      <Shown query={query}>
        {({ rows, weeks }) => {
          if (rows.length === 0)
            return (
              <Empty title="Nothing was counted in these days">
                Lines that are decided on are counted here, those within tolerance as right.
              </Empty>
            );
          const lines = weeks.reduce((n, w) => n + w.lines, 0);
          const within = weeks.reduce((n, w) => n + w.within, 0);
          const says = `${Math.round((within / lines) * 1000) / 10} % of ${whole(lines)} lines were within tolerance`;
          return (
            <>
              <Sentence>{says}</Sentence>
              <Suspense fallback={<div style={{ height: 190 }} />}>
                <BarsChart
                  bars={weeks.map((w) => ({ name: w.key, value: w.accuracy ?? 0 }))}
                  label={`${says}, week by week`}
                  unit=" %"
                  most={100}
                />
              </Suspense>
              <LinesTable className="mt-3">
                <thead>
                  <tr>
                    <th>{HEADS[by]}</th>
                    <th className="num">Lines</th>
                    <th className="num">Within tolerance</th>
                    <th className="num">Right</th>
                    {me.data?.seesCosts && <th className="num">More</th>}
                    {me.data?.seesCosts && <th className="num">Less</th>}
                  </tr>
                </thead>
                <tbody>
                  {rows.map((r) => (
                    <tr key={r.key}>
                      <td>
                        <b>{r.key || 'no aisle'}</b>
                      </td>
                      <td className="num">{whole(r.lines)}</td>
                      <td className="num">{whole(r.within)}</td>
                      <td className="num">
                        <b>{r.accuracy} %</b>
                      </td>
                      {me.data?.seesCosts && <td className="num">{money(r.more)}</td>}
                      {me.data?.seesCosts && <td className="num">{money(r.less)}</td>}
                    </tr>
                  ))}
                </tbody>
              </LinesTable>
            </>
          );
        }}
      </Shown>
    </Page>
  );
}
