import { lazy, Suspense, useState } from 'react';
import type { Dto } from '../../api/client';
import { Button, TextButton } from '../../ui/button';
import { Field } from '../../ui/field';
import { day, whole } from '../../ui/format';
import { Input, Select } from '../../ui/input';
import { BlockHead, Sentence } from '../../ui/page';
import { DenseTable } from '../../ui/table';

const StockChart = lazy(() => import('../../ui/chart/stock-chart'));

type Plan = Dto['ItemPlanDto'];
type Ahead = Plan['usual'];

/** What is asked: deliveries later by days or not at all, demand in per cent, an order today. */
export interface WhatIf {
  late: number;
  none: boolean;
  demand: number;
  order: number;
}
export const USUAL: WhatIf = { late: 0, none: false, demand: 100, order: 0 };

const isUsual = (w: WhatIf) => w.late === 0 && !w.none && w.demand === 100 && w.order === 0;

/** What happens, in a sentence. */
export function aheadSays({ runsOutOn, missed, broken }: Ahead, units: string): string {
  if (runsOutOn === null) return 'It lasts for half a year with what is coming';
  const late = broken > 0 ? `; ${whole(broken)} that are promised would be late` : '';
  const lost = missed > 0 ? `; in half a year ${whole(missed)} ${units} would be asked for in vain` : '';
  return `It runs out on ${day(runsOutOn)}${late}${lost}`;
}

/** What is asked otherwise, in words. */
function asksFor({ late, none, demand, order }: WhatIf): string {
  return [
    none ? 'nothing is delivered' : late > 0 ? `deliveries come ${late} days later` : '',
    demand === 100 ? '' : `demand is ${demand} % of what is expected`,
    order > 0 ? `${whole(order)} are ordered today` : '',
  ]
    .filter(Boolean)
    .join(' and ');
}

/** Stock over the next half year with what is coming and promised, as it is and what if. */
export function StockAhead({ plan, whatIf, onWhatIf }: { plan: Plan; whatIf: WhatIf; onWhatIf: (asked: WhatIf) => void }) {
  const [isTable, setIsTable] = useState(false);
  const other = isUsual(whatIf) ? null : plan.whatIf;
  const usual = aheadSays(plan.usual, plan.unitPlural);
  const says = other ? `If ${asksFor(whatIf)}: ${aheadSays(other, plan.unitPlural).replace(/^It /, 'it ')}` : usual;
  return (
    <section aria-label="Stock ahead" className="mt-5">
      <BlockHead>
        <h2>Stock ahead</h2>
        <TextButton type="button" aria-expanded={isTable} onClick={() => setIsTable(!isTable)}>
          {isTable ? 'Chart' : 'Table'}
        </TextButton>
      </BlockHead>
      <Sentence role="status">{says}</Sentence>
      <div className="flex flex-wrap gap-3 items-end mt-2">
        <Field label="Deliveries" className="w-[170px]">
          <Select
            value={whatIf.none ? 'none' : String(whatIf.late)}
            onChange={(e) => onWhatIf({ ...whatIf, none: e.target.value === 'none', late: Number(e.target.value) || 0 })}
          >
            <option value="0">as they are due</option>
            <option value="7">a week late</option>
            <option value="21">three weeks late</option>
            <option value="none">do not come</option>
          </Select>
        </Field>
        <Field label="Demand" className="w-[150px]">
          <Select value={String(whatIf.demand)} onChange={(e) => onWhatIf({ ...whatIf, demand: Number(e.target.value) })}>
            <option value="70">30 % less</option>
            <option value="100">as expected</option>
            <option value="130">30 % more</option>
            <option value="200">doubled</option>
          </Select>
        </Field>
        <Field label="Ordered today" className="w-[110px]">
          <Input
            inputMode="numeric"
            value={whatIf.order === 0 ? '' : String(whatIf.order)}
            onChange={(e) => onWhatIf({ ...whatIf, order: /^\d{1,7}$/.test(e.target.value) ? Number(e.target.value) : 0 })}
          />
        </Field>
        {plan.proposed > 0 && whatIf.order !== plan.proposed && (
          <TextButton type="button" onClick={() => onWhatIf({ ...whatIf, order: plan.proposed })}>
            the {whole(plan.proposed)} that are proposed
          </TextButton>
        )}
        {other && (
          <Button type="button" onClick={() => onWhatIf(USUAL)}>
            As it is
          </Button>
        )}
      </div>
      {isTable ? (
        <AheadTable plan={plan} other={other} />
      ) : (
        <Suspense fallback={<div style={{ height: 190 }} />}>
          <StockChart usual={plan.usual.days} other={other?.days ?? null} point={plan.point} label={says} />
        </Suspense>
      )}
      <Documents plan={plan} />
    </section>
  );
}

/** Stock week by week. */
function AheadTable({ plan, other }: { plan: Plan; other: Ahead | null }) {
  const weekly = plan.usual.days.map((d, i) => ({ d, other: other?.days[i] })).filter((_, i) => i % 7 === 0);
  return (
    <DenseTable className="mt-2">
      <thead>
        <tr>
          <th>Day</th>
          <th className="num">Stock</th>
          <th className="num">Nine of ten times</th>
          {other && <th className="num">What if</th>}
        </tr>
      </thead>
      <tbody>
        {weekly.map(({ d, other: o }) => (
          <tr key={d.day}>
            <td>{day(d.day)}</td>
            <td className="num">{whole(Math.round(d.stock))}</td>
            <td className="num">
              {whole(Math.round(d.low))} to {whole(Math.round(d.high))}
            </td>
            {other && <td className="num">{whole(Math.round(o?.stock ?? 0))}</td>}
          </tr>
        ))}
      </tbody>
    </DenseTable>
  );
}

/** What is coming and what is promised, by its day. */
function Documents({ plan: { arrivals, promised } }: { plan: Plan }) {
  const all = [...arrivals.map((a) => ({ ...a, sign: '+' })), ...promised.map((p) => ({ ...p, sign: '−' }))].sort((a, b) =>
    a.due.localeCompare(b.due),
  );
  if (all.length === 0) return null;
  return (
    <DenseTable className="mt-2" aria-label="Coming and promised">
      <tbody>
        {all.slice(0, 30).map((d, i) => (
          <tr key={`${d.document}${i}`}>
            <td>{day(d.due)}</td>
            <td className="num">
              {d.sign}
              {whole(d.units)}
            </td>
            <td className="code">{d.document}</td>
            <td className="mid">{d.who}</td>
          </tr>
        ))}
      </tbody>
    </DenseTable>
  );
}
