import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { plural, whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Sheet, ShownSheet, Waybill } from '../../../ui/sheet';
import { Empty, ProblemNote, Problem } from '../../../ui/states';
import { Select } from '../../../ui/input';
import { LinesTable } from '../../../ui/table';
import { Acts } from '../../../ui/page';
import { Button } from '../../../ui/button';
import { Faults, WordsSaid } from './faults';
import { fieldsOf } from './fields-of';

type Run = Dto['ImportDto'];
const BUSY = new Set(['checking', 'applying']);

/** How far a run has come, as a bar in ink. */
function Progress({ run }: { run: Run }) {
  const share = run.total === 0 ? 0 : Math.min(1, run.done / run.total);
  return (
    <div
      className="mt-4"
      role="progressbar"
      aria-valuemin={0}
      aria-valuemax={run.total}
      aria-valuenow={run.done}
      aria-label={run.state === 'checking' ? 'Checking' : 'Taking in'}
    >
      <div className="bar">
        <i style={{ width: `${share * 100}%` }} />
      </div>
      <p className="note mt-1">
        {run.state === 'checking' ? 'Checking' : 'Taking in'}: {whole(run.done)} of {plural(run.total, 'row', 'rows')}. You may leave this
        page meanwhile.
      </p>
    </div>
  );
}

/** What each column of the file holds: guessed, and put right by a person; remembered for files of the same shape. */
function Columns({ run, kinds, onSaid }: { run: Run; kinds: readonly Dto['ImportKindDto'][]; onSaid: () => void }) {
  const [kind, setKind] = useState(run.kind);
  const [fields, setFields] = useState(() => run.columns.map((c) => c.field ?? ''));
  const [units, setUnits] = useState(() => run.columns.map((c) => c.unit ?? ''));
  const shape = kinds.find((k) => k.kind === kind);
  const choices = kind === run.kind ? run.fields : (shape?.fields ?? []);
  const measures = (field: string | undefined) => choices.find((c) => c.key === field)?.units;
  const missing = choices.filter((f) => f.required && !fields.includes(f.key));
  const say = useAct({
    act: (_: void, once) =>
      ask(
        api.PUT('/api/imports/{id}/columns', {
          params: { path: { id: run.id } },
          body: { kind, fields, units: fields.map((f, i) => (measures(f) ? (units[i] ?? '') : '')) },
          headers: once,
        }),
      ),
    onDone: onSaid,
  });
  return (
    <form
      className="flex flex-col gap-2 mt-4"
      onSubmit={(e) => {
        e.preventDefault();
        say.mutate();
      }}
    >
      <label className="flex gap-3 items-center">
        <b>This file holds</b>
        <Select
          style={{ width: 260 }}
          value={kind}
          onChange={(e) => {
            setKind(e.target.value);
            setFields(
              fieldsOf(
                run.columns.map((c) => c.head),
                kinds.find((k) => k.kind === e.target.value)?.fields ?? [],
                fields,
              ),
            );
          }}
        >
          {kinds.map((k) => (
            <option key={k.kind} value={k.kind}>
              {k.says}
            </option>
          ))}
        </Select>
      </label>
      <LinesTable>
        <thead>
          <tr>
            <th>Column of the file</th>
            <th>Its first values</th>
            <th>Holds</th>
          </tr>
        </thead>
        <tbody>
          {run.columns.map((c, i) => (
            <tr key={i}>
              <td>
                <b>{c.head}</b>
              </td>
              <td className="mid max-w-[260px] overflow-hidden text-ellipsis whitespace-nowrap">{c.samples.join(' · ')}</td>
              <td style={{ width: 300 }}>
                <div className="flex gap-2">
                  <Select
                    className={fields[i] ? '' : 'soft'}
                    aria-label={`What the column ${c.head} holds`}
                    value={fields[i]}
                    onChange={(e) => setFields(fields.map((f, n) => (n === i ? e.target.value : f === e.target.value ? '' : f)))}
                  >
                    <option value="">pass it over</option>
                    {choices.map((f) => (
                      <option key={f.key} value={f.key}>
                        {f.label}
                        {f.required ? ' (needed)' : ''}
                      </option>
                    ))}
                  </Select>
                  {measures(fields[i]) && (
                    <Select
                      style={{ width: 84 }}
                      aria-label={`The unit of the column ${c.head}`}
                      value={units[i] || measures(fields[i])?.[0]}
                      onChange={(e) => setUnits(units.map((u, n) => (n === i ? e.target.value : u)))}
                    >
                      {measures(fields[i])?.map((u) => (
                        <option key={u}>{u}</option>
                      ))}
                    </Select>
                  )}
                </div>
              </td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
      <ProblemNote problem={say.error} />
      <Acts>
        <Button next disabled={missing.length > 0 || say.isPending}>
          {missing.length > 0 ? `Still to say: ${missing.map((m) => m.label).join(', ')}` : `Check ${plural(run.total, 'row', 'rows')}`}{' '}
          <Glyph name="go" size={13} />
        </Button>
        <span className="note">Checking writes nothing.</span>
      </Acts>
    </form>
  );
}

/** One import, step by step: its columns, what is wrong with its rows, taken in, taken back. */
export function ImportSheet() {
  const { id = '' } = useParams();
  const client = useQueryClient();
  const navigate = useNavigate();
  const [columns, setColumns] = useState(false);
  const query = useQuery({
    queryKey: key('import', id),
    queryFn: () => ask(api.GET('/api/imports/{id}', { params: { path: { id } } })),
    refetchInterval: (q) => (q.state.data && BUSY.has(q.state.data.state) ? 300 : false),
  });
  const kinds = useQuery({ queryKey: key('imports', 'kinds'), queryFn: () => ask(api.GET('/api/imports/kinds')), staleTime: Infinity });
  const apply = useAct({
    act: (goodRowsOnly: boolean, once) =>
      ask(api.POST('/api/imports/{id}/apply', { params: { path: { id } }, body: { goodRowsOnly }, headers: once })),
  });
  const undo = useAct({ act: (_: void, once) => ask(api.POST('/api/imports/{id}/undo', { params: { path: { id } }, headers: once })) });
  const rest = useAct({
    act: (_: void, once) => ask(api.POST('/api/imports/{id}/rest', { params: { path: { id } }, headers: once })),
    onDone: (made) => void navigate(`/setup/imports/${made.id}`),
  });
  return (
    <ShownSheet query={query} back="/setup/imports">
      {(run) => {
        const good = run.total - run.faulty;
        const asking = run.state === 'read' || (columns && (run.state === 'checked' || run.state === 'failed'));
        return (
          <Sheet address="setup/imports" title={run.fileName} about={run.says} back="/setup/imports">
            <Waybill
              cells={[
                { cap: 'Rows', value: whole(run.total), note: `${plural(run.columns.length, 'column', 'columns')}` },
                {
                  cap: 'Good',
                  value: run.state === 'read' ? 'not checked' : whole(good),
                  note: run.faulty > 0 ? `${whole(run.faulty)} faulty` : undefined,
                },
                { cap: 'Made', value: whole(run.made) },
                { cap: 'Changed', value: whole(run.changed) },
              ]}
            />
            {run.problem && (
              <Problem role="alert">
                <p>{run.problem}</p>
              </Problem>
            )}
            <ProblemNote problem={apply.error ?? undo.error ?? rest.error} />
            {BUSY.has(run.state) && <Progress run={run} />}
            {asking && kinds.data && (
              <Columns
                key={run.id}
                run={run}
                kinds={kinds.data}
                onSaid={() => {
                  setColumns(false);
                  void client.invalidateQueries();
                }}
              />
            )}
            {!asking && run.state === 'checked' && run.faulty === 0 && (
              <Empty title="Every row is good">Nothing is written yet. Take them in, and they can still be taken back as a whole.</Empty>
            )}
            {!asking && run.state === 'applied' && (
              <Empty title={`${plural(run.made, 'made', 'made')}, ${plural(run.changed, 'changed', 'changed')}`}>
                {run.faulty > 0 ? `${plural(run.faulty, 'faulty row was', 'faulty rows were')} left out. ` : ''}The whole import can be
                taken back while nothing depends on it.
              </Empty>
            )}
            {!asking && run.state === 'undone' && (
              <Empty title="Taken back">What this import wrote is gone, and what it changed is as it was.</Empty>
            )}
            {!asking && run.faulty > 0 && !BUSY.has(run.state) && <Faults run={run} onMended={() => void client.invalidateQueries()} />}
            {!asking && !BUSY.has(run.state) && <WordsSaid run={run} onMended={() => void client.invalidateQueries()} />}
            {!asking && (
              <Acts>
                {run.state === 'checked' && (
                  <>
                    {run.faulty === 0 ? (
                      <Button type="button" next disabled={apply.isPending} onClick={() => apply.mutate(false)}>
                        Take in {plural(run.total, 'row', 'rows')} <Glyph name="go" size={13} />
                      </Button>
                    ) : (
                      good > 0 && (
                        <Button type="button" disabled={apply.isPending} onClick={() => apply.mutate(true)}>
                          Take in the {plural(good, 'good row', 'good rows')} only
                        </Button>
                      )
                    )}
                    <Button type="button" onClick={() => setColumns(true)}>
                      Look at the columns again
                    </Button>
                  </>
                )}
                {run.state === 'failed' && (
                  <Button type="button" onClick={() => setColumns(true)}>
                    Look at the columns again
                  </Button>
                )}
                {run.state === 'applied' && run.faulty > 0 && (
                  <Button type="button" disabled={rest.isPending} onClick={() => rest.mutate()}>
                    Take up the {plural(run.faulty, 'row', 'rows')} left out <Glyph name="go" size={13} />
                  </Button>
                )}
                {run.state === 'applied' && (
                  <Button type="button" disabled={undo.isPending} onClick={() => undo.mutate()}>
                    <Glyph name="undo" size={13} /> Take the whole import back
                  </Button>
                )}
              </Acts>
            )}
          </Sheet>
        );
      }}
    </ShownSheet>
  );
}
