import { useQuery } from '@tanstack/react-query';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import type { FieldWords } from '../../../ui/record/record-form';
import { RowsField } from '../../../ui/record/rows-field';
import { SetUpForm } from '../../../ui/record/set-up-form';
import { useRecord } from '../../../ui/record/use-record';
import { Shown } from '../../../ui/states';
import { choicesOf } from './choices';

type Kind = Dto['EditExtraFieldDto']['kind'];
const KINDS: readonly (readonly [Kind, string])[] = [
  ['text', 'text'],
  ['number', 'a number'],
  ['date', 'a date'],
  ['yes-no', 'yes or no'],
  ['choice', 'one of a list'],
];
interface Values {
  /** Choices are typed with commas between. */
  fields: { name: string; kind: Kind; choices: string }[];
}
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  fields: { label: 'Own fields', show: (fields: Values['fields']) => fields.map((f) => f.name).join(', ') },
};

/** The fields that the company adds to every item; files and exports have them too. */
export function ExtraFields() {
  const query = useQuery({ queryKey: key('extra-fields'), queryFn: () => ask(api.GET('/api/items/extra-fields')) });
  return <Shown query={query}>{(list) => <Form list={list} />}</Shown>;
}

function Form({ list }: { list: Dto['ExtraFieldsDto'] }) {
  const record = useRecord<Values, unknown>({
    part: 'fields',
    source: {
      values: { fields: list.fields.map((f) => ({ name: f.name, kind: f.kind as Kind, choices: f.choices.join(', ') })) },
      version: list.version,
    },
    save: ({ fields }, version, once) =>
      ask(
        api.PUT('/api/items/extra-fields', {
          body: { fields: fields.map((f) => ({ ...f, choices: f.kind === 'choice' ? choicesOf(f.choices) : [] })) },
          headers: { ...once, ...ifMatch(version ?? 1) },
        }),
      ),
  });
  return (
    <SetUpForm
      title="Own fields of items"
      note="They stand on every item’s sheet, in imports and in exports."
      keep="Keep the fields"
      record={record}
      words={WORDS}
    >
      <div className="max-w-[860px]">
        <RowsField
          name="fields"
          one="field"
          columns={[
            { name: 'name', label: 'Name', width: 230 },
            { name: 'kind', label: 'Holds', width: 170, options: KINDS },
            { name: 'choices', label: 'What can be chosen from a list', placeholder: 'a comma between' },
          ]}
          blank={{ name: '', kind: 'text', choices: '' }}
        />
      </div>
    </SetUpForm>
  );
}
