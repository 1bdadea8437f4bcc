import { useAct } from '../../../api/use-act';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { api, ask, ProblemError } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { Field } from '../../../ui/field';
import { Glyph } from '../../../ui/glyph';
import { Sheet } from '../../../ui/sheet';
import { ProblemNote } from '../../../ui/states';
import { kindWords as words, PLACE_KINDS as KINDS } from './place-kinds';

interface Values {
  code: string;
  kind: (typeof KINDS)[number];
  siteId: number;
  pickable: boolean;
}

/** Makes one place. */
export function PlaceForm() {
  const me = useMe();
  const navigate = useNavigate();
  const form = useForm<Values>({
    defaultValues: { code: '', kind: 'pick-face', pickable: true, siteId: me.data?.sites[0]?.id ?? 1 },
  });
  const save = useAct({
    act: (v: Values, once) => ask(api.POST('/api/places', { body: { ...v, siteId: Number(v.siteId) }, headers: once })),
    onDone: (made) => {
      void navigate(`/shelves/places/${made.code}`);
    },
  });
  const fields = save.error instanceof ProblemError ? save.error.fields : {};
  return (
    <Sheet address="places/new" title="New place" back="/shelves/places">
      <form className="flex flex-col flex-1 gap-3 mt-3 max-w-[420px]" onSubmit={(e) => void form.handleSubmit((v) => save.mutate(v))(e)}>
        <Field label="Code, such as C-07-2" fault={fields['code']}>
          <input className="input code" autoFocus {...form.register('code')} />
        </Field>
        <Field label="Kind">
          <select className="input" {...form.register('kind')}>
            {KINDS.map((k) => (
              <option key={k} value={k}>
                {words(k)}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Site">
          <select className="input" {...form.register('siteId')}>
            {me.data?.sites.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
        </Field>
        <label className="flex gap-2 items-center">
          <input type="checkbox" {...form.register('pickable')} /> Open to picking
        </label>
        <ProblemNote problem={save.error} />
        <div className="acts">
          <button className="act act-next" disabled={save.isPending}>
            Keep the place <Glyph name="go" size={13} />
          </button>
        </div>
      </form>
    </Sheet>
  );
}
