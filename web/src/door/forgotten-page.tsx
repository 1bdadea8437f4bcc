import { DoorSheet } from '../ui/door-sheet';
import { useAct } from '../api/use-act';
import { useState } from 'react';

import { api, ask } from '../api/client';
import { Field } from '../ui/field';
import { Glyph } from '../ui/glyph';
import { ProblemNote } from '../ui/states';
import { Input } from '../ui/input';
import { Button, TextLink } from '../ui/button';

/** Has a link for a new password mailed. The answer is the same whoever asks. */
export function ForgottenPage() {
  const [email, setEmail] = useState('');
  const send = useAct({ act: (_: void, once) => ask(api.POST('/api/door/reset', { body: { email }, headers: once })) });
  return (
    <DoorSheet>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault();
          send.mutate();
        }}
      >
        <h1>Forgotten your password?</h1>
        {send.isSuccess ? (
          <p role="status">If {email} belongs to somebody here, a link is on its way. It works for two hours.</p>
        ) : (
          <>
            <Field label="Your e-mail">
              <Input type="email" autoComplete="username" autoFocus required value={email} onChange={(e) => setEmail(e.target.value)} />
            </Field>
            <ProblemNote problem={send.error} />
            <Button next className="justify-center" disabled={send.isPending}>
              Mail me a link <Glyph name="go" size={15} />
            </Button>
          </>
        )}
        <p className="note">
          <TextLink to="/sign-in">Back to signing in</TextLink>
        </p>
      </form>
    </DoorSheet>
  );
}
