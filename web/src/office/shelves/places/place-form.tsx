import { useWatch } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { api, ask } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { CheckField, NumberField, SelectField, TextField } from '../../../ui/record/fields';
import { RecordForm } from '../../../ui/record/record-form';
import { useRecord } from '../../../ui/record/use-record';
import { kindWords as words, MADE_KINDS } from './place-kinds';

interface Values {
  code: string;
  kind: (typeof MADE_KINDS)[number];
  siteId: number;
  pickable: boolean;
  slotRows: string;
  slotColumns: string;
}
const WORDS = {
  code: { label: 'Code' },
  kind: { label: 'Kind' },
  siteId: { label: 'Site' },
  pickable: { label: 'Open to picking' },
  slotRows: { label: 'Rows of slots' },
  slotColumns: { label: 'Slots in a row' },
};

/** Makes one place. */
export function PlaceForm() {
  const me = useMe();
  const navigate = useNavigate();
  const record = useRecord<Values, { code: string }>({
    source: {
      values: { code: '', kind: 'pick-face', pickable: true, slotRows: '3', slotColumns: '4', siteId: me.data?.sites[0]?.id ?? 1 },
    },
    save: ({ slotRows, slotColumns, ...v }, _, once) => {
      const wall = v.kind === 'sorting-wall' ? { slotRows: Number(slotRows), slotColumns: Number(slotColumns) } : {};
      return ask(api.POST('/api/places', { body: { ...v, ...wall, siteId: Number(v.siteId) }, headers: once }));
    },
    onSaved: (made) => void navigate(`/shelves/places/${made.code}`),
  });
  return (
    <RecordForm record={record} words={WORDS} address="places/new" title="New place" back="/shelves/places" keep="Keep the place">
      <TextField name="code" label="Code, such as C-07-2" code autoFocus />
      <SelectField name="kind" label="Kind">
        {MADE_KINDS.map((k) => (
          <option key={k} value={k}>
            {words(k)}
          </option>
        ))}
      </SelectField>
      <SelectField name="siteId" label="Site">
        {me.data?.sites.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </SelectField>
      <KindFields />
    </RecordForm>
  );
}

/** What is asked of a place by what it is: how a wall hangs, or whether pickers go there. */
function KindFields() {
  const [kind, rows, columns] = useWatch<Values, ['kind', 'slotRows', 'slotColumns']>({ name: ['kind', 'slotRows', 'slotColumns'] });
  if (kind !== 'sorting-wall') return <CheckField name="pickable" label="Open to picking" />;
  const count = Number(rows) * Number(columns);
  return (
    <>
      <NumberField name="slotRows" label="Rows of slots, one over the other" />
      <NumberField name="slotColumns" label="Slots in a row" />
      <p className="mid">
        {count > 0 ? `It gets ${count} slots, numbered from the top left.` : 'Say how many slots it has.'} Their labels are printed like
        those of bins.
      </p>
    </>
  );
}
