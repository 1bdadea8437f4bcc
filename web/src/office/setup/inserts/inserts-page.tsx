import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { useAct } from '../../../api/use-act';
import { TextButton } from '../../../ui/button';
import { BlockHead, Page } from '../../../ui/page';
import { SetUpTable } from '../../../ui/record/set-up-table';
import { Empty, ProblemNote, Shown } from '../../../ui/states';
import { InsertForm } from './insert-form';

/** What goes along with orders by rule: cards, samples, stickers. They never hold an order up, and may be left out at the table. */
export function InsertsPage() {
  const query = useQuery({ queryKey: key('inserts'), queryFn: () => ask(api.GET('/api/inserts')) });
  const [id, setId] = useState<number | null>(null);
  const drop = useAct({
    act: (rule: number, once) => ask(api.DELETE('/api/inserts/{id}', { params: { path: { id: rule } }, headers: once })),
    onDone: () => setId(null),
  });
  return (
    <Page aria-label="Inserts">
      <BlockHead>
        <h1>Inserts</h1>
        <span className="note">go with every order that a rule is for, cost nothing, and hold nothing up</span>
      </BlockHead>
      <Shown query={query} rows={3}>
        {({ rules, items }) => {
          const rule = rules.find((r) => r.id === id);
          return items.length === 0 ? (
            <Empty title="Nothing may go along yet">
              A card or a sample is an item like any other. Tick “Never holds up an order” on it under{' '}
              <Link to="/shelves/items">Items</Link>, then say here with which orders it goes.
            </Empty>
          ) : (
            <>
              {rules.length === 0 ? (
                <Empty title="Nothing goes along by rule yet">Say below what goes with which orders.</Empty>
              ) : (
                <SetUpTable
                  rows={rules}
                  rowKey={(r) => r.id}
                  rowName={(r) => r.name}
                  onChange={(r) => setId(r.id)}
                  columns={[
                    { head: 'Goes along', cell: (r) => <b>{r.name}</b> },
                    { head: 'SKU', cell: (r) => r.sku, code: true },
                    { head: 'How many', cell: (r) => r.units, num: true },
                    { head: 'With orders of', cell: (r) => r.channel ?? 'every channel' },
                    { head: 'Worth at least', cell: (r) => r.fromValue ?? '', num: true },
                    { head: 'Of', cell: (r) => (r.firstOnly ? 'new customers' : 'everybody') },
                  ]}
                />
              )}
              <ProblemNote problem={drop.error} />
              {rule && (
                <TextButton type="button" className="mt-3" disabled={drop.isPending} onClick={() => drop.mutate(rule.id)}>
                  Take this rule away
                </TextButton>
              )}
              <div className="mt-5 max-w-[860px]">
                <InsertForm key={id ?? 0} rule={rule} items={items} onKept={() => setId(null)} />
              </div>
            </>
          );
        }}
      </Shown>
    </Page>
  );
}
