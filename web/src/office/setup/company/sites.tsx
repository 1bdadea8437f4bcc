import { useAct } from '../../../api/use-act';
import { useState } from 'react';
import { api, ask, ProblemError } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { Field } from '../../../ui/field';
import { ProblemNote } from '../../../ui/states';
import { BlockHead } from '../../../ui/page';
import { Input } from '../../../ui/input';
import { Button } from '../../../ui/button';

/** The sites; another one begins with a dock and a packing table. */
export function Sites() {
  const me = useMe();
  const [site, setSite] = useState({ code: '', name: '' });
  const add = useAct({
    act: (_: void, once) => ask(api.POST('/api/company/sites', { body: site, headers: once })),
    onDone: () => {
      setSite({ code: '', name: '' });
    },
  });
  const fields = add.error instanceof ProblemError ? add.error.fields : {};
  return (
    <div>
      <BlockHead>
        <h2>Sites</h2>
        <span className="note">{me.data?.sites.map((s) => `${s.name} (${s.code})`).join(', ')}</span>
      </BlockHead>
      <form
        className="flex gap-4 items-end mt-2"
        onSubmit={(e) => {
          e.preventDefault();
          add.mutate();
        }}
      >
        <Field label="Another site" fault={fields['name']}>
          <Input style={{ width: 240 }} value={site.name} onChange={(e) => setSite({ ...site, name: e.target.value })} />
        </Field>
        <Field label="Code" fault={fields['code']}>
          <Input className="code" style={{ width: 110 }} value={site.code} onChange={(e) => setSite({ ...site, code: e.target.value })} />
        </Field>
        <Button disabled={add.isPending || site.name.trim() === '' || site.code.trim() === ''}>Make the site</Button>
      </form>
      <ProblemNote problem={add.error} />
    </div>
  );
}
