import { useAct } from '../api/use-act';
import { useState } from 'react';
import { api, ask, type Dto, ProblemError } from '../api/client';
import { useMe } from '../api/queries';
import { AskedChange } from '../ui/asked-change';
import { Barcode } from '../ui/barcode';
import { Field } from '../ui/field';
import { Glyph } from '../ui/glyph';
import { ProblemNote } from '../ui/states';
import { Input } from '../ui/input';
import { Page, Said } from '../ui/page';
import { Button } from '../ui/button';
import { FeedKeys } from './feed-keys';
import { ToldByMail } from './told-by-mail';

/** One's own page: the badge, and a change of password or PIN. */
export function OwnPage() {
  const me = useMe();
  const [values, setValues] = useState({ current: '', password: '', pin: '' });
  const change = useAct({
    act: (_: void, once) =>
      ask(
        api.PUT('/api/session/secrets', {
          body: {
            current: values.current,
            ...(values.password ? { password: values.password } : {}),
            ...(values.pin ? { pin: values.pin } : {}),
          },
          headers: once,
        }),
      ),
    onDone: () => setValues({ current: '', password: '', pin: '' }),
  });
  const fields = change.error instanceof ProblemError ? change.error.fields : {};
  const input = (key: keyof typeof values, label: string, autoComplete: string) => (
    <Field label={label} fault={fields[key]}>
      <Input
        type="password"
        autoComplete={autoComplete}
        inputMode={key === 'pin' ? 'numeric' : 'text'}
        value={values[key]}
        onChange={(e) => setValues({ ...values, [key]: e.target.value })}
      />
    </Field>
  );
  return (
    <Page aria-label="Your own page">
      <div className="flex gap-10 items-start">
        <div>
          <h1 className="text-title font-bold">{me.data?.name}</h1>
          <p className="mid">{me.data?.email}</p>
          <p className="mid">{me.data?.sites.map((s) => s.name).join(', ')}</p>
        </div>
        {me.data?.badge && <Barcode code={me.data.badge} />}
      </div>
      {me.data?.asked && <Asked asked={me.data.asked} />}
      <div className="mt-6 max-w-[380px]">
        <ToldByMail />
      </div>
      <form
        className="flex flex-col gap-3 mt-6 max-w-[380px]"
        onSubmit={(e) => {
          e.preventDefault();
          change.mutate();
        }}
      >
        {input('current', 'Password now', 'current-password')}
        {input('password', 'New password, at least 10 characters', 'new-password')}
        {input('pin', 'New PIN for shared devices, 4 to 8 digits', 'off')}
        <ProblemNote problem={change.error} />
        {change.isSuccess && (
          <Said role="status">
            <Glyph name="full" /> Changed. With a new password, your other devices are signed out.
          </Said>
        )}
        <Button
          next
          className="self-start"
          disabled={change.isPending || values.current === '' || (values.password === '' && values.pin === '')}
        >
          Change <Glyph name="go" size={13} />
        </Button>
      </form>
      <FeedKeys />
    </Page>
  );
}

function Asked({ asked }: { asked: Dto['AskedChangeDto'] }) {
  const answer = useAct({
    act: (agree: boolean, once) => ask(api.POST('/api/session/change', { body: { agree }, headers: once })),
  });
  return (
    <AskedChange
      asked={asked}
      whose="your"
      agree={() => answer.mutate(true)}
      refuse={{ says: 'Leave it as it is', act: () => answer.mutate(false) }}
      isBusy={answer.isPending}
      problem={answer.error}
    />
  );
}
