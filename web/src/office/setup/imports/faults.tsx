import { Fragment, useState } from 'react';
import { api, ask, type Dto } from '../../../api/client';
import { useAct } from '../../../api/use-act';
import { Button, TextAnchor, TextButton } from '../../../ui/button';
import { plural, whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Input, Select } from '../../../ui/input';
import { Acts, BlockHead } from '../../../ui/page';
import { ProblemNote } from '../../../ui/states';
import { DenseTable } from '../../../ui/table';
import { allKey, blocksOf, changesOf, keyOf } from './mending';

type Run = Dto['ImportDto'];
/** Values of one fault that are shown before the rest is asked for. */
const FIRST = 8;

/** What a cell is to be read as: one of a few words, or anything. */
function Becomes({
  label,
  field,
  said,
  onSay,
}: {
  label: string;
  field: Dto['ImportFieldDto'] | undefined;
  said: string | undefined;
  onSay: (becomes: string | undefined) => void;
}) {
  // prettier-ignore
  const choices = field?.choices;
  if (!choices)
    return (
      <span className="flex gap-2 items-baseline">
        <Input
          className="w-0 grow"
          aria-label={label}
          value={said ?? ''}
          placeholder={said === '' ? 'nothing: passed over' : 'read it as'}
          onChange={(e) => onSay(e.target.value || undefined)}
        />
        {!field?.required && (
          <TextButton
            type="button"
            aria-label={`Pass over: ${label}`}
            aria-pressed={said === ''}
            onClick={() => onSay(said === '' ? undefined : '')}
          >
            pass over
          </TextButton>
        )}
      </span>
    );
  return (
    <Select aria-label={label} value={said ?? '?'} onChange={(e) => onSay(e.target.value === '?' ? undefined : e.target.value)}>
      <option value="?">read it as</option>
      {choices.map((c) => (
        <option key={c} value={c}>
          {c}
        </option>
      ))}
      {!field.required && <option value="">nothing: pass it over</option>}
    </Select>
  );
}

/** What is wrong with the rows, taken together; a value is mended once for all rows that have it, and the rows are checked again. */
export function Faults({ run, onMended }: { run: Run; onMended: () => void }) {
  const [said, setSaid] = useState<ReadonlyMap<string, string>>(new Map());
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const blocks = blocksOf(run.groups);
  const fieldOf = (key: string) => run.fields.find((f) => f.key === key);
  const mends = run.state === 'checked' || run.state === 'failed';
  const say = (key: string) => (becomes: string | undefined) =>
    setSaid((was) => {
      const next = new Map(was);
      if (becomes === undefined) next.delete(key);
      else next.set(key, becomes);
      return next;
    });
  const mend = useAct({
    act: (changes: Dto['ImportMendDto'][], once) =>
      ask(api.POST('/api/imports/{id}/mend', { params: { path: { id: run.id } }, body: { changes }, headers: once })),
    onDone: () => {
      setSaid(new Map());
      onMended();
    },
  });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        mend.mutate(changesOf(blocks, said, (f) => fieldOf(f)?.choices != null));
      }}
    >
      <BlockHead className="mt-5">
        <h2>{plural(run.faulty, 'faulty row', 'faulty rows')}</h2>
        <span className="note flex gap-3">
          <TextAnchor href={`/api/imports/${run.id}/faulty.csv`} download>
            These rows as CSV
          </TextAnchor>
          <TextAnchor href={`/api/imports/${run.id}/faulty.xlsx`} download>
            as XLSX
          </TextAnchor>
        </span>
      </BlockHead>
      <DenseTable className="w-full">
        <thead>
          <tr>
            <th>Value</th>
            <th className="num">Rows</th>
            <th style={{ width: 290 }}>{mends ? 'Read as' : ''}</th>
          </tr>
        </thead>
        <tbody>
          {blocks.map((b) => {
            const key = allKey(b);
            const shown = open.has(key) ? b.groups : b.groups.slice(0, FIRST);
            return (
              <Fragment key={key}>
                <tr>
                  <td className="whitespace-normal">
                    <b>{b.label}</b> <span className="mid">{b.reason}</span>
                  </td>
                  <td className="num strong">{whole(b.rows)}</td>
                  <td>
                    {mends && b.groups.length > 1 && (
                      <Becomes label={`All of ${b.label}: ${b.reason}`} field={fieldOf(b.field)} said={said.get(key)} onSay={say(key)} />
                    )}
                  </td>
                </tr>
                {shown.map((g) => (
                  <tr key={keyOf(g)}>
                    <td className="pl-6! max-w-[240px] overflow-hidden text-ellipsis">
                      {g.value === '' ? <span className="soft">empty</span> : <span className="code">{g.value}</span>}
                    </td>
                    <td className="num mid">{g.rows === 1 ? `row ${g.row}` : `${whole(g.rows)}, from ${g.row}`}</td>
                    <td>
                      {mends && (
                        <Becomes
                          label={`${b.label}, ${g.value || 'empty'}`}
                          field={fieldOf(g.field)}
                          said={said.get(keyOf(g))}
                          onSay={say(keyOf(g))}
                        />
                      )}
                    </td>
                  </tr>
                ))}
                {shown.length < b.groups.length && (
                  <tr>
                    <td colSpan={3} className="pl-6!">
                      <TextButton type="button" onClick={() => setOpen(new Set([...open, key]))}>
                        {b.groups.length - shown.length} more
                      </TextButton>
                    </td>
                  </tr>
                )}
              </Fragment>
            );
          })}
        </tbody>
      </DenseTable>
      <ProblemNote problem={mend.error} />
      {mends && (
        <Acts>
          <Button next={said.size > 0} disabled={said.size === 0 || mend.isPending}>
            {said.size === 0 ? 'Say what to read, then check again' : `Read ${plural(said.size, 'value', 'values')} so, and check again`}{' '}
            <Glyph name="go" size={13} />
          </Button>
        </Acts>
      )}
    </form>
  );
}

/** What words of the file are read as; each can be taken back. */
export function WordsSaid({ run, onMended }: { run: Run; onMended: () => void }) {
  const forget = useAct({
    act: ({ field, value }: Dto['ImportWordDto'], once) =>
      ask(
        api.POST('/api/imports/{id}/mend', {
          params: { path: { id: run.id } },
          body: { changes: [{ field, value, becomes: null }] },
          headers: once,
        }),
      ),
    onDone: onMended,
  });
  if (run.words.length === 0) return null;
  return (
    <>
      <BlockHead className="mt-5">
        <h2>Read as you said</h2>
        <span className="note">remembered for files with the same columns</span>
      </BlockHead>
      {run.words.map((w) => (
        <div key={`${w.field}/${w.value}`} className="flex gap-3 items-baseline border-b border-rule py-1">
          <span>{w.label}</span>
          <span className="code">{w.value || 'empty'}</span>
          <Glyph name="go" size={13} says="is read as" />
          <b>{w.becomes || 'nothing'}</b>
          {run.state === 'checked' && (
            <TextButton type="button" className="ml-auto" disabled={forget.isPending} onClick={() => forget.mutate(w)}>
              Forget
            </TextButton>
          )}
        </div>
      ))}
      <ProblemNote problem={forget.error} />
    </>
  );
}
