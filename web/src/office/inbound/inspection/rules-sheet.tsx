import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { ordinal } from '@vectrum/core/inspection';
import { useState } from 'react';

import { api, ask, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { plural } from '../../../ui/format';
import { Sheet } from '../../../ui/sheet';
import { ProblemNote, Shown } from '../../../ui/states';
import { RuleForm } from './rule-form';
import { TextLink, TextButton, Button } from '../../../ui/button';
import { LinesTable } from '../../../ui/table';
import { Acts } from '../../../ui/page';

type Rule = Dto['InspectionRuleDto'];

/** How often, in words. */
export function oftenWords(r: Pick<Rule, 'kind' | 'n'>): string {
  if (r.kind === 'always') return 'each delivery';
  return r.kind === 'every' ? `every ${ordinal(r.n)} delivery` : `until ${r.n} in a row have passed`;
}

/** Which goods are looked at and how often, and the lists of what to look at. */
export function RulesSheet() {
  const me = useMe();
  const mayKeep = me.data?.rights.includes('buy') ?? false;
  const rules = useQuery({ queryKey: key('inspection-rules'), queryFn: () => ask(api.GET('/api/inspection-rules')) });
  const lists = useQuery({ queryKey: key('checklists'), queryFn: () => ask(api.GET('/api/checklists')) });
  return (
    <Sheet address="inbound/inspection/rules" title="What is looked at" back="/inbound/inspection">
      <Shown query={rules} rows={4}>
        {(list) => <Rules list={list} lists={lists.data ?? []} mayKeep={mayKeep} />}
      </Shown>
      <div className="flex items-baseline gap-4 mt-6">
        <h2>Checklists</h2>
        {mayKeep && <TextLink to="/inbound/inspection/checklists/new">New checklist</TextLink>}
      </div>
      <Shown query={lists} rows={3}>
        {(all) =>
          all.length === 0 ? (
            <p className="note">A checklist says what to look at, one check after another.</p>
          ) : (
            <Lists all={all} mayKeep={mayKeep} />
          )
        }
      </Shown>
    </Sheet>
  );
}

function Rules({ list, lists, mayKeep }: { list: readonly Rule[]; lists: readonly Dto['ChecklistDto'][]; mayKeep: boolean }) {
  const [changing, setChanging] = useState<number | 'new' | null>(null);
  const remove = useAct({
    act: (id: number, once) => ask(api.DELETE('/api/inspection-rules/{id}', { params: { path: { id } }, headers: once })),
  });
  return (
    <>
      <LinesTable>
        <thead>
          <tr>
            <th>Goods</th>
            <th>From</th>
            <th>How often</th>
            <th>Checklist</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {list.map((r) =>
            r.id === changing ? (
              <tr key={r.id}>
                <td colSpan={5}>
                  <RuleForm rule={r} lists={lists} onDone={() => setChanging(null)} />
                </td>
              </tr>
            ) : (
              <tr key={r.id}>
                <td>
                  <b>{r.item ?? 'all goods'}</b>
                  {r.sku && <span className="note code">{r.sku}</span>}
                </td>
                <td>{r.supplier ?? 'anybody'}</td>
                <td>{oftenWords(r)}</td>
                <td>{r.checklist ?? 'none'}</td>
                <td className="num">
                  {mayKeep && (
                    <span className="flex gap-3 justify-end">
                      <TextButton type="button" onClick={() => setChanging(r.id)}>
                        change
                      </TextButton>
                      <TextButton type="button" disabled={remove.isPending} onClick={() => remove.mutate(r.id)}>
                        take away
                      </TextButton>
                    </span>
                  )}
                </td>
              </tr>
            ),
          )}
        </tbody>
      </LinesTable>
      {list.length === 0 && <p className="note mt-2">Nothing is looked at yet: all goods are stock as soon as they are booked in.</p>}
      <ProblemNote problem={remove.error} />
      {mayKeep &&
        (changing === 'new' ? (
          <RuleForm rule={null} lists={lists} onDone={() => setChanging(null)} />
        ) : (
          <Acts style={{ marginTop: 12 }}>
            <Button type="button" next onClick={() => setChanging('new')}>
              Add a rule
            </Button>
          </Acts>
        ))}
    </>
  );
}

function Lists({ all, mayKeep }: { all: readonly Dto['ChecklistDto'][]; mayKeep: boolean }) {
  return (
    <LinesTable>
      <tbody>
        {all.map((c) => (
          <tr key={c.id}>
            <td>
              <b>{c.name}</b>
              <span className="note">{c.checks.map((k) => k.says).join(', ')}</span>
            </td>
            <td className="mid">{c.uses === 0 ? 'not used' : plural(c.uses, 'rule', 'rules')}</td>
            <td className="num">{mayKeep && <TextLink to={`/inbound/inspection/checklists/${c.id}`}>change</TextLink>}</td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}
