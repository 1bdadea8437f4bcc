import { useState } from 'react';
import { api, ask, type Dto, ProblemError } from '../../api/client';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { Input, Select } from '../../ui/input';
import { ActsForm } from '../../ui/page';
import { ProblemNote } from '../../ui/states';
import { LinesTable } from '../../ui/table';

type Round = Dto['RoundSheetDto'];

/** The numbers of a paper list, typed in one go: each stop by the number that was taken, each order by its tote. Nothing is filled in. */
export function PaperResults({ round, onClose }: { round: Round; onClose: () => void }) {
  const open = round.stops.filter((s) => s.picked + s.short < s.units);
  const [taken, setTaken] = useState<Readonly<Record<number, string>>>({});
  const [totes, setTotes] = useState<Readonly<Record<number, string>>>({});
  const [table, setTable] = useState(round.tables[0] ?? '');
  const enter = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/rounds/{code}/results', {
          params: { path: { code: round.code } },
          headers: once,
          body: {
            table,
            totes: Object.entries(totes).flatMap(([orderId, tote]) =>
              tote.trim() ? [{ orderId: Number(orderId), tote: tote.trim() }] : [],
            ),
            stops: open.flatMap((s) => (/^\d+$/.test(taken[s.id]?.trim() ?? '') ? [{ stopId: s.id, units: Number(taken[s.id]) }] : [])),
          },
        }),
      ),
    onDone: onClose,
  });
  const faults = enter.error instanceof ProblemError ? (enter.error.fields ?? {}) : {};
  return (
    <ActsForm
      className="paper-results"
      aria-label="Results of the paper list"
      onSubmit={(e) => {
        e.preventDefault();
        enter.mutate();
      }}
    >
      <LinesTable>
        <thead>
          <tr>
            <th>Bin</th>
            <th>Goods</th>
            <th className="num">Wanted</th>
            <th>Taken</th>
          </tr>
        </thead>
        <tbody>
          {open.map((s) => (
            <tr key={s.id}>
              <td className="code">{s.place}</td>
              <td>
                {s.item}
                {round.holders.length > 1 && <div className="mid code">{s.order}</div>}
              </td>
              <td className="num">{s.units - s.picked - s.short}</td>
              <td>
                <Input
                  className="num"
                  style={{ width: 76 }}
                  inputMode="numeric"
                  aria-label={`Taken from ${s.place}, ${s.item}, ${s.order}`}
                  aria-invalid={faults[`stop-${s.id}`] !== undefined}
                  value={taken[s.id] ?? ''}
                  onChange={(e) => setTaken({ ...taken, [s.id]: e.target.value })}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
      {round.holders
        .filter((o) => o.totes.length === 0)
        .map((o) => (
          <Field key={o.id} label={`Tote of ${o.code}, ${o.customer}`} fault={faults[`tote-${o.id}`]}>
            <Input className="code" value={totes[o.id] ?? ''} onChange={(e) => setTotes({ ...totes, [o.id]: e.target.value })} />
          </Field>
        ))}
      <Field label="Set down at" fault={faults['table']}>
        <Select value={table} onChange={(e) => setTable(e.target.value)}>
          {round.tables.map((t) => (
            <option key={t}>{t}</option>
          ))}
        </Select>
      </Field>
      {enter.error && <ProblemNote problem={enter.error} />}
      <div className="flex gap-2">
        <Button next disabled={enter.isPending}>
          Enter and set down
        </Button>
        <Button type="button" onClick={onClose}>
          Not now
        </Button>
      </div>
    </ActsForm>
  );
}
