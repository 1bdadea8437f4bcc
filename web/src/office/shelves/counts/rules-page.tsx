import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useAct } from '../../../api/use-act';
import { TextButton, TextLink } from '../../../ui/button';
import { BlockHead, Page } from '../../../ui/page';
import { SetUpTable } from '../../../ui/record/set-up-table';
import { Empty, ProblemNote, Shown } from '../../../ui/states';
import { ShelvesWords } from '../shelves-words';
import { RuleForm } from './rule-form';

/** How often goods are counted, and how far a count may be off before somebody looks: for the company, a class or an item. */
export function CountRulesPage() {
  const query = useQuery({ queryKey: key('count-rules'), queryFn: () => ask(api.GET('/api/count-rules')) });
  const [id, setId] = useState<number | null>(null);
  const drop = useAct({
    act: (rule: { id: number; version: number }, once) =>
      ask(api.DELETE('/api/count-rules/{id}', { params: { path: { id: rule.id } }, headers: { ...once, ...ifMatch(rule.version) } })),
    onDone: () => setId(null),
  });
  return (
    <Page aria-label="Rules for counts">
      <ShelvesWords at="counts" />
      <BlockHead className="mt-2">
        <h1>Rules for counts</h1>
        <span className="note">the nearest holds: the item’s own, its class’s, the company’s</span>
        <TextLink to="/setup/company">What is within tolerance is booked at once</TextLink>
      </BlockHead>
      <Shown query={query} rows={3}>
        {(rules) => {
          const rule = rules.find((r) => r.id === id);
          return (
            <>
              {rules.length === 0 ? (
                <Empty title="There is no rule yet">
                  Whatever is off is looked at by somebody, and nothing is due by plan. Say below what is near enough.
                </Empty>
              ) : (
                <SetUpTable
                  rows={rules}
                  rowKey={(r) => r.id}
                  rowName={(r) => r.item ?? r.className ?? 'the company’s rule'}
                  onChange={(r) => setId(r.id)}
                  columns={[
                    { head: 'For', cell: (r) => <b>{r.item ?? r.className ?? 'The company'}</b> },
                    { head: 'Counted every', cell: (r) => (r.intervalDays ? `${r.intervalDays} days` : ''), num: true },
                    { head: 'Units', cell: (r) => r.units ?? '', num: true },
                    { head: 'Value', cell: (r) => (r.value ? Number(r.value) : ''), num: true },
                    { head: '% of units', cell: (r) => (r.unitsPercent ? Number(r.unitsPercent) : ''), num: true },
                    { head: '% of the count', cell: (r) => (r.valuePercent ? Number(r.valuePercent) : ''), num: true },
                  ]}
                />
              )}
              <ProblemNote problem={drop.error} />
              {rule && (
                <TextButton type="button" className="mt-3" disabled={drop.isPending} onClick={() => drop.mutate(rule)}>
                  Take this rule away
                </TextButton>
              )}
              <div className="mt-5 max-w-[860px]">
                <RuleForm key={id ?? 0} rule={rule} onKept={() => setId(null)} />
              </div>
            </>
          );
        }}
      </Shown>
    </Page>
  );
}
