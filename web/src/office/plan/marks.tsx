import { useQuery } from '@tanstack/react-query';
import { weekOfDate, weekText } from '@vectrum/core/replenish';
import { api, ask, ifMatch, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { TextButton } from '../../ui/button';
import { BlockHead } from '../../ui/page';
import { NumberField, TextField } from '../../ui/record/fields';
import type { FieldWords } from '../../ui/record/record-form';
import { SetUpForm } from '../../ui/record/set-up-form';
import { useRecord } from '../../ui/record/use-record';
import { ProblemNote, Shown } from '../../ui/states';
import { DenseTable } from '../../ui/table';

type Mark = Dto['MarkDto'];
interface Values {
  name: string;
  className: string;
  sku: string;
  from: string;
  to: string;
  liftPercent: string;
}
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  name: { label: 'Name' },
  className: { label: 'Class, or all' },
  sku: { label: 'SKU, or all of the class' },
  from: { label: 'From the week of' },
  to: { label: 'To the week of' },
  liftPercent: { label: 'Per cent more (or less) than usual' },
};
const FRESH: Values = { name: '', className: '', sku: '', from: '', to: '', liftPercent: '' };

/** The week that a day is in; what is no day is left for the server to refuse. */
function weekOf(text: string): string {
  try {
    return weekText(weekOfDate(text));
  } catch {
    return text;
  }
}

const lift = (m: Mark) => {
  if (m.liftPercent === null) return 'as the last of this name';
  return m.liftPercent < 0 ? `${-m.liftPercent} % less` : `${m.liftPercent} % more`;
};

/** Weeks that are not as usual: they teach neither level nor season, and those to come are counted on. */
export function Marks() {
  const query = useQuery({ queryKey: key('demand-marks'), queryFn: () => ask(api.GET('/api/buying/marks')) });
  const drop = useAct({
    act: (mark: Mark, once) =>
      ask(api.DELETE('/api/buying/marks/{id}', { params: { path: { id: mark.id } }, headers: { ...once, ...ifMatch(mark.version) } })),
  });
  const record = useRecord<Values, unknown>({
    part: 'demand-mark',
    source: { values: FRESH },
    save: (v, _version, once) =>
      ask(
        api.POST('/api/buying/marks', {
          body: {
            name: v.name,
            ...(v.sku.trim() ? { sku: v.sku.trim() } : v.className.trim() ? { className: v.className.trim() } : {}),
            from: weekOf(v.from),
            to: weekOf(v.to || v.from),
            liftPercent: v.liftPercent.trim() === '' ? null : Number(v.liftPercent),
          },
          headers: once,
        }),
      ),
    onSaved: () => {
      record.form.reset(FRESH);
    },
  });
  return (
    <section aria-label="Weeks that are not as usual" className="mt-8">
      <BlockHead>
        <h2>Weeks that are not as usual</h2>
        <span className="note">campaigns, prices, strikes: they teach nothing about other weeks, and those to come are counted on</span>
      </BlockHead>
      <Shown query={query} rows={2}>
        {(marks) =>
          marks.length === 0 ? (
            <p className="mid my-2">No week is marked.</p>
          ) : (
            <DenseTable className="max-w-[860px]">
              <tbody>
                {marks.map((m) => (
                  <tr key={m.id}>
                    <td>
                      <b>{m.name}</b>
                    </td>
                    <td>{m.item ?? m.className ?? 'everything'}</td>
                    <td className="code">
                      {m.from} to {m.to}
                    </td>
                    <td>{lift(m)}</td>
                    <td className="num">
                      <TextButton type="button" aria-label={`Take ${m.name} away`} disabled={drop.isPending} onClick={() => drop.mutate(m)}>
                        Take away
                      </TextButton>
                    </td>
                  </tr>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <ProblemNote problem={drop.error} />
      <div className="mt-4 max-w-[860px]">
        <SetUpForm title="Mark weeks" keep="Mark them" record={record} words={WORDS}>
          <div className="grid sm:grid-cols-2 gap-3">
            <TextField name="name" label={WORDS.name.label} />
            <NumberField name="liftPercent" label={WORDS.liftPercent.label} />
            <TextField name="from" label={WORDS.from.label} type="date" />
            <TextField name="to" label={WORDS.to.label} type="date" />
            <TextField name="className" label={WORDS.className.label} />
            <TextField name="sku" label={WORDS.sku.label} code />
          </div>
        </SetUpForm>
      </div>
    </section>
  );
}
