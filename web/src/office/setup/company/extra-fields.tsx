import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useState } from 'react';
import { api, ask, type Dto } from '../../../api/client';
import { Glyph } from '../../../ui/glyph';
import { ProblemNote, Shown } from '../../../ui/states';
import { BlockHead } from '../../../ui/page';
import { LinesTable } from '../../../ui/table';
import { Input, Select } from '../../../ui/input';
import { TextButton, Button } from '../../../ui/button';

type Kind = Dto['EditExtraFieldDto']['kind'];
const KINDS: readonly (readonly [Kind, string])[] = [
  ['text', 'text'],
  ['number', 'a number'],
  ['date', 'a date'],
  ['yes-no', 'yes or no'],
  ['choice', 'one of a list'],
];

/** The fields that the company adds to every item; files and exports have them too. */
export function ExtraFields() {
  const query = useQuery({ queryKey: key('extra-fields'), queryFn: () => ask(api.GET('/api/items/extra-fields')) });
  return <Shown query={query}>{(fields) => <Form key={JSON.stringify(fields)} fields={fields} />}</Shown>;
}

function Form({ fields }: { fields: Dto['ExtraFieldDto'][] }) {
  const [list, setList] = useState(fields);
  const save = useAct({
    act: (_: void, once) =>
      ask(api.PUT('/api/items/extra-fields', { body: { fields: list as Dto['EditExtraFieldDto'][] }, headers: once })),
  });
  const change = (i: number, more: Partial<Dto['ExtraFieldDto']>) => setList(list.map((f, n) => (n === i ? { ...f, ...more } : f)));
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <BlockHead>
        <h2>Own fields of items</h2>
        <span className="note">They stand on every item’s sheet, in imports and in exports.</span>
      </BlockHead>
      <LinesTable style={{ maxWidth: 860 }}>
        <tbody>
          {list.map((f, i) => (
            <tr key={i}>
              <td style={{ width: 230 }}>
                <Input aria-label={`Name of field ${i + 1}`} value={f.name} onChange={(e) => change(i, { name: e.target.value })} />
              </td>
              <td style={{ width: 160 }}>
                <Select aria-label={`Kind of ${f.name}`} value={f.kind} onChange={(e) => change(i, { kind: e.target.value })}>
                  {KINDS.map(([k, says]) => (
                    <option key={k} value={k}>
                      {says}
                    </option>
                  ))}
                </Select>
              </td>
              <td>
                {f.kind === 'choice' && (
                  <Input
                    aria-label={`Choices of ${f.name}`}
                    placeholder="choices, a comma between"
                    defaultValue={f.choices.join(', ')}
                    onBlur={(e) =>
                      change(i, {
                        choices: e.target.value
                          .split(',')
                          .map((c) => c.trim())
                          .filter(Boolean),
                      })
                    }
                  />
                )}
              </td>
              <td style={{ width: 30 }}>
                <button
                  type="button"
                  aria-label={`Take ${f.name || 'the field'} out`}
                  onClick={() => setList(list.filter((_, n) => n !== i))}
                >
                  <Glyph name="shut" />
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
      <ProblemNote problem={save.error} />
      <div className="flex gap-5 items-center mt-3 mb-6">
        <TextButton type="button" onClick={() => setList([...list, { name: '', kind: 'text', choices: [] }])}>
          Another field
        </TextButton>
        <Button disabled={save.isPending || JSON.stringify(list) === JSON.stringify(fields)}>Keep the fields</Button>
      </div>
    </form>
  );
}
