import { DoorSheet } from '../ui/door-sheet';
import { useQueryClient } from '@tanstack/react-query';
import { useAct } from '../api/use-act';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { api, ask, ProblemError } from '../api/client';
import { Field } from '../ui/field';
import { Glyph } from '../ui/glyph';
import { MarkName } from '../ui/mark';
import { ProblemNote } from '../ui/states';
import { Input } from '../ui/input';
import { Button } from '../ui/button';

interface Values {
  name: string;
  email: string;
  password: string;
  siteName: string;
  siteCode: string;
}

/** The first page of a new house: the owner's account and the first site. */
export function FirstRunPage() {
  const form = useForm<Values>({
    defaultValues: { name: '', email: '', password: '', siteName: '', siteCode: '' },
  });
  const navigate = useNavigate();
  const client = useQueryClient();
  const found = useAct({
    act: async (v: Values, once) => {
      await ask(api.POST('/api/first-owner', { body: v, headers: once }));
      await ask(api.POST('/api/session', { body: { email: v.email, password: v.password }, headers: once }));
    },
    onDone: async () => {
      await client.resetQueries();
      void navigate('/');
    },
  });
  const fields = found.error instanceof ProblemError ? found.error.fields : {};
  return (
    <DoorSheet>
      <form className="flex flex-col gap-4" onSubmit={(e) => void form.handleSubmit((v) => found.mutate(v))(e)}>
        <MarkName />
        <h1>A new house</h1>
        <p className="mid">You become its owner. People, bins and goods come after.</p>
        <Field label="Your name" fault={fields['name']}>
          <Input autoFocus {...form.register('name')} />
        </Field>
        <Field label="E-mail" fault={fields['email']}>
          <Input type="email" autoComplete="username" {...form.register('email')} />
        </Field>
        <Field label="Password, 10 characters or more" fault={fields['password']}>
          <Input type="password" autoComplete="new-password" {...form.register('password')} />
        </Field>
        <div className="grid grid-cols-[2fr_1fr] gap-4">
          <Field label="Your first site" fault={fields['siteName']}>
            <Input {...form.register('siteName')} />
          </Field>
          <Field label="Its code" fault={fields['siteCode']}>
            <Input className="code" {...form.register('siteCode')} />
          </Field>
        </div>
        <ProblemNote problem={Object.keys(fields).length > 0 ? null : found.error} />
        <Button next className="justify-center" disabled={found.isPending}>
          Open the house <Glyph name="go" size={15} />
        </Button>
      </form>
    </DoorSheet>
  );
}
