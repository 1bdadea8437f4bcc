import { usePreference } from '../api/preferences';
import { Field } from '../ui/field';
import { Select } from '../ui/input';

type Mail = 'none' | 'urgent' | 'all';

/** Which new orders a person is told of by mail. */
export function ToldByMail() {
  const [wish, keep] = usePreference<{ mail: Mail }>('announcements', { mail: 'none' });
  return (
    <Field label="New orders, told by mail">
      <Select value={wish.mail} disabled={!keep} onChange={(e) => keep?.({ mail: e.target.value as Mail })}>
        <option value="none">none</option>
        <option value="urgent">urgent ones</option>
        <option value="all">all of them</option>
      </Select>
    </Field>
  );
}
