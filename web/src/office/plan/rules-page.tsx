import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask, ifMatch, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { TextButton, TextLink } from '../../ui/button';
import { ExportLinks } from '../../ui/export-links';
import { BlockHead, Page } from '../../ui/page';
import { SetUpTable } from '../../ui/record/set-up-table';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { Marks } from './marks';
import { PlanWords } from './plan-words';
import { RuleForm } from './rule-form';

type Rule = Dto['BuyingRuleDto'];

const forWhat = (r: Rule) => `${r.item ?? r.className ?? 'The company'}${r.site ? `, ${r.site}` : ''}`;

/** How goods are bought where it is not as usual: for the company, a class or an item; and weeks that were or will be out of the usual. */
export function RulesPage() {
  const query = useQuery({ queryKey: key('buying-rules'), queryFn: () => ask(api.GET('/api/buying/rules')) });
  const [id, setId] = useState<number | null>(null);
  const drop = useAct({
    act: (rule: { id: number; version: number }, once) =>
      ask(api.DELETE('/api/buying/rules/{id}', { params: { path: { id: rule.id } }, headers: { ...once, ...ifMatch(rule.version) } })),
    onDone: () => setId(null),
  });
  return (
    <Page aria-label="Rules for buying">
      <PlanWords at="rules">
        <ExportLinks list="buying-rules" />
      </PlanWords>
      <BlockHead className="mt-2">
        <h1>Rules for buying</h1>
        <span className="note">the nearest holds: the item’s own, its class’s, the company’s; of each the site’s first</span>
        <TextLink to="/setup/company">What an order and keeping stock cost</TextLink>
      </BlockHead>
      <Shown query={query} rows={3}>
        {(rules) => {
          const rule = rules.find((r) => r.id === id);
          return (
            <>
              {rules.length === 0 ? (
                <Empty title="Everything is bought as usual">
                  97 % are to be met from the shelf unless the company says otherwise, and there is a chance to order every week. Say below
                  where it is not so.
                </Empty>
              ) : (
                <SetUpTable
                  rows={rules}
                  rowKey={(r) => r.id}
                  rowName={(r) => forWhat(r)}
                  onChange={(r) => setId(r.id)}
                  columns={[
                    { head: 'For', cell: (r) => <b>{forWhat(r)}</b> },
                    { head: 'Met from the shelf', cell: (r) => (r.servicePercent ? `${Number(r.servicePercent)} %` : ''), num: true },
                    { head: 'Ordered every', cell: (r) => (r.reviewDays ? `${r.reviewDays} days` : ''), num: true },
                    { head: 'From', cell: (r) => r.supplier ?? '', code: true },
                    { head: 'Sells like', cell: (r) => (r.likeSku ? `${r.likeSku}, ${r.likePercent ?? 100} %` : ''), code: true },
                    { head: 'Room for', cell: (r) => (r.roomUnits ? String(r.roomUnits) : ''), num: true },
                    { head: 'Bought', cell: (r) => (r.isDropped ? 'no more' : r.isFixed ? 'at its own point' : '') },
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
      <Marks />
    </Page>
  );
}
