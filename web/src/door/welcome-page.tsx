import { DoorSheet } from '../ui/door-sheet';
import { useQuery } from '@tanstack/react-query';
import { afresh, useAct } from '../api/use-act';
import { key } from '../api/keys';
import { useState } from 'react';

import { api, ask, ProblemError } from '../api/client';
import { Field } from '../ui/field';
import { Glyph } from '../ui/glyph';
import { MarkName } from '../ui/mark';
import { ProblemNote, Shown } from '../ui/states';
import { ButtonLink, Button } from '../ui/button';
import { Input } from '../ui/input';

/** Opened from a mail: a password is chosen, by somebody invited or somebody who forgot theirs. */
export function WelcomePage() {
  const [token] = useState(() => window.location.hash.slice(1));
  const [password, setPassword] = useState('');
  const [pin, setPin] = useState('');
  const whose = useQuery({
    queryKey: key('welcome', token),
    queryFn: () => ask(api.POST('/api/door/whose', { body: { token }, headers: afresh() })),
    retry: false,
    staleTime: Infinity,
  });
  const choose = useAct({
    act: (_: void, once) =>
      ask(api.POST('/api/door/choose', { body: { token, ...(password ? { password } : {}), ...(pin ? { pin } : {}) }, headers: once })),
  });
  const fields = choose.error instanceof ProblemError ? choose.error.fields : {};
  return (
    <DoorSheet>
      {choose.isSuccess ? (
        <div className="flex flex-col gap-4">
          <h1>{password ? 'Your password is set' : 'Your PIN is set'}</h1>
          <p>
            {password
              ? 'Sign in with it. On a shared device, your badge and PIN do the same.'
              : 'On a phone or table of the house, scan your badge and type it.'}
          </p>
          <ButtonLink to="/sign-in" next className="justify-center">
            Sign in <Glyph name="go" size={15} />
          </ButtonLink>
        </div>
      ) : (
        <>
          {!whose.data && <h1>{whose.error ? 'This link does not open' : 'One moment'}</h1>}
          <Shown query={whose} rows={3}>
            {(who) => (
              <form
                className="flex flex-col gap-4"
                onSubmit={(e) => {
                  e.preventDefault();
                  choose.mutate();
                }}
              >
                <MarkName />
                <h1>{who.purpose === 'invite' ? `Welcome, ${who.name}` : who.email ? 'A new password' : 'A new PIN'}</h1>
                <input type="hidden" autoComplete="username" value={who.email} readOnly />
                {who.email && (
                  <Field label="Password, at least 10 characters" fault={fields['password']}>
                    <Input
                      type="password"
                      autoComplete="new-password"
                      autoFocus
                      required
                      minLength={10}
                      value={password}
                      onChange={(e) => setPassword(e.target.value)}
                    />
                  </Field>
                )}
                <Field
                  label={
                    who.email
                      ? 'PIN for shared devices, 4 to 8 digits; may be left out'
                      : 'PIN for the house’s phones and tables, 4 to 8 digits'
                  }
                  fault={fields['pin']}
                >
                  <Input type="password" inputMode="numeric" autoComplete="off" value={pin} onChange={(e) => setPin(e.target.value)} />
                </Field>
                <ProblemNote problem={choose.error} />
                <Button next className="justify-center" disabled={choose.isPending || (who.email ? password.length < 10 : pin.length < 4)}>
                  {who.email ? 'Keep the password' : 'Keep the PIN'} <Glyph name="go" size={15} />
                </Button>
              </form>
            )}
          </Shown>
        </>
      )}
    </DoorSheet>
  );
}
