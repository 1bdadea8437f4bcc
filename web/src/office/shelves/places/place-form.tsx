import { useNavigate } from 'react-router';
import { api, ask } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { CheckField, SelectField, TextField } from '../../../ui/record/fields';
import { RecordForm } from '../../../ui/record/record-form';
import { useRecord } from '../../../ui/record/use-record';
import { kindWords as words, PLACE_KINDS as KINDS } from './place-kinds';

interface Values {
  code: string;
  kind: (typeof KINDS)[number];
  siteId: number;
  pickable: boolean;
}
const WORDS = { code: { label: 'Code' }, kind: { label: 'Kind' }, siteId: { label: 'Site' }, pickable: { label: 'Open to picking' } };

/** Makes one place. */
export function PlaceForm() {
  const me = useMe();
  const navigate = useNavigate();
  const record = useRecord<Values, { code: string }>({
    source: { values: { code: '', kind: 'pick-face', pickable: true, siteId: me.data?.sites[0]?.id ?? 1 } },
    save: (v, _, once) => ask(api.POST('/api/places', { body: { ...v, siteId: Number(v.siteId) }, headers: once })),
    onSaved: (made) => void navigate(`/shelves/places/${made.code}`),
  });
  return (
    <RecordForm record={record} words={WORDS} address="places/new" title="New place" back="/shelves/places" keep="Keep the place">
      <TextField name="code" label="Code, such as C-07-2" code autoFocus />
      <SelectField name="kind" label="Kind">
        {KINDS.map((k) => (
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
      <CheckField name="pickable" label="Open to picking" />
    </RecordForm>
  );
}
