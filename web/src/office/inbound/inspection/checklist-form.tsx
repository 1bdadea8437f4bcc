import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useFieldArray, useWatch } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { TextField } from '../../../ui/record/fields';
import { type FieldWords, RecordForm } from '../../../ui/record/record-form';
import { useRecord } from '../../../ui/record/use-record';
import { NotThere, ShownSheet } from '../../../ui/sheet';
import { ProblemNote } from '../../../ui/states';
import { Button, TextButton } from '../../../ui/button';
import { LinesTable, NumberCell } from '../../../ui/table';
import { Input, Select } from '../../../ui/input';

type Checklist = Dto['ChecklistDto'];
interface Values {
  name: string;
  checks: { says: string; kind: 'yes' | 'measure' | 'words'; unit: string; low: string; high: string }[];
}
const blank: Values['checks'][number] = { says: '', kind: 'yes', unit: '', low: '', high: '' };
const valuesOf = (c: Checklist): Values => ({
  name: c.name,
  checks: c.checks.map((k) => ({ ...k, low: k.low ?? '', high: k.high ?? '' })),
});

/** Makes or changes a list of what to look at. */
export function ChecklistForm() {
  const { id } = useParams();
  const query = useQuery({ queryKey: key('checklists'), queryFn: () => ask(api.GET('/api/checklists')) });
  if (!id) return <Form checklist={undefined} />;
  return (
    <ShownSheet query={query} back="/inbound/inspection/rules">
      {(all) => {
        const found = all.find((c) => String(c.id) === id);
        return found ? (
          <Form checklist={found} />
        ) : (
          <NotThere says="This checklist is not there any more" back="/inbound/inspection/rules" />
        );
      }}
    </ShownSheet>
  );
}

const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  name: { label: 'Name' },
  checks: { label: 'Checks', show: (checks: Values['checks']) => checks.map((c) => c.says).join('; ') },
};

function Form({ checklist }: { checklist: Checklist | undefined }) {
  const navigate = useNavigate();
  const done = () => void navigate('/inbound/inspection/rules');
  const record = useRecord<Values, unknown>({
    source: { values: checklist ? valuesOf(checklist) : { name: '', checks: [blank] }, version: checklist?.version },
    save: (v, version, once): Promise<unknown> => {
      const body = {
        name: v.name,
        checks: v.checks.filter((c) => c.says.trim() !== '').map((c) => ({ ...c, low: c.low.trim() || null, high: c.high.trim() || null })),
      };
      return checklist && version !== undefined
        ? ask(api.PUT('/api/checklists/{id}', { params: { path: { id: checklist.id } }, headers: { ...once, ...ifMatch(version) }, body }))
        : ask(api.POST('/api/checklists', { body, headers: once }));
    },
    onSaved: done,
  });
  const { form } = record;
  const checks = useFieldArray({ control: form.control, name: 'checks' });
  const kinds = useWatch({ control: form.control, name: 'checks' });
  const remove = useAct({
    act: (id: number, once) => ask(api.DELETE('/api/checklists/{id}', { params: { path: { id } }, headers: once })),
    onDone: done,
  });
  return (
    <RecordForm
      record={record}
      words={WORDS}
      address={checklist ? `inbound/inspection/checklists/${checklist.id}` : 'inbound/inspection/checklists/new'}
      title={checklist ? checklist.name : 'New checklist'}
      back="/inbound/inspection/rules"
      keep="Keep the checklist"
      more={
        checklist && (
          <Button type="button" disabled={remove.isPending} onClick={() => remove.mutate(checklist.id)}>
            Take it away
          </Button>
        )
      }
    >
      <TextField name="name" label="Name" autoFocus maxLength={60} />
      <div className="overflow-x-auto">
        <LinesTable>
          <thead>
            <tr>
              <td />
              <th>Look at</th>
              <th>Answer</th>
              <th className="num">From</th>
              <th className="num">To</th>
              <th>Unit</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {checks.fields.map((f, i) => {
              const measured = kinds[i]?.kind === 'measure';
              const bound = (name: 'low' | 'high' | 'unit', says: string, width: number) => (
                <Input
                  className={name === 'unit' ? '' : 'num'}
                  style={{ width }}
                  aria-label={`${says} of check ${i + 1}`}
                  disabled={!measured}
                  {...form.register(`checks.${i}.${name}`)}
                />
              );
              return (
                <tr key={f.id}>
                  <NumberCell>{i + 1}</NumberCell>
                  <td>
                    <Input className="min-w-[180px]" aria-label={`Check ${i + 1}`} maxLength={120} {...form.register(`checks.${i}.says`)} />
                  </td>
                  <td>
                    <Select aria-label={`Answer to check ${i + 1}`} {...form.register(`checks.${i}.kind`)}>
                      <option value="yes">yes or no</option>
                      <option value="measure">a measure</option>
                      <option value="words">in words</option>
                    </Select>
                  </td>
                  <td className="num">{bound('low', 'Lower bound', 76)}</td>
                  <td className="num">{bound('high', 'Upper bound', 76)}</td>
                  <td>{bound('unit', 'Unit', 64)}</td>
                  <td>
                    <TextButton type="button" onClick={() => checks.remove(i)}>
                      take away
                    </TextButton>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </LinesTable>
      </div>
      <div>
        <TextButton type="button" onClick={() => checks.append(blank)}>
          One more check
        </TextButton>
      </div>
      <ProblemNote problem={remove.error} />
    </RecordForm>
  );
}
