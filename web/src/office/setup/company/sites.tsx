import { api, ask } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { TextField } from '../../../ui/record/fields';
import { SetUpForm } from '../../../ui/record/set-up-form';
import { useRecord } from '../../../ui/record/use-record';

const FRESH = { name: '', code: '' };
const WORDS = { name: { label: 'Another site' }, code: { label: 'Code' } };

/** The sites; another one begins with a dock and a packing table. */
export function Sites() {
  const me = useMe();
  const record = useRecord<typeof FRESH, unknown>({
    part: 'site',
    source: { values: FRESH },
    save: (body, _, once) => ask(api.POST('/api/company/sites', { body, headers: once })),
    onSaved: () => {
      record.form.reset(FRESH);
    },
  });
  return (
    <SetUpForm
      title="Sites"
      note={me.data?.sites.map((s) => `${s.name} (${s.code})`).join(', ')}
      keep="Make the site"
      record={record}
      words={WORDS}
    >
      <div className="flex gap-4 items-start">
        <TextField name="name" label={WORDS.name.label} className="w-[240px]" />
        <TextField name="code" label={WORDS.code.label} code className="w-[110px]" />
      </div>
    </SetUpForm>
  );
}
