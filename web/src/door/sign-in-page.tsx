import { DoorSheet } from '../ui/door-sheet';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useAct } from '../api/use-act';
import { key } from '../api/keys';
import { useState } from 'react';
import { Navigate, useNavigate, useSearchParams } from 'react-router';
import { queue } from '../flow/queue';
import { kept } from '../flow/kept';
import { api, ask } from '../api/client';
import { Field } from '../ui/field';
import { Glyph } from '../ui/glyph';
import { MarkName } from '../ui/mark';
import { ProblemNote } from '../ui/states';
import { Input } from '../ui/input';
import { Button, TextLink } from '../ui/button';
import { BlockHead } from '../ui/page';

/** Where a person who usually does one thing wants to begin. */
const USUAL_PAGES: Readonly<Record<string, string>> = {
  buyer: '/inbound',
  'order-desk': '/orders',
  receiver: '/floor',
  storer: '/floor',
  picker: '/floor',
  packer: '/bench',
  'set-up': '/setup',
};

async function usualPage(): Promise<string> {
  const me = await ask(api.GET('/api/session'));
  return USUAL_PAGES[me.usualDuty ?? ''] ?? '/';
}

/** E-mail and password; in the demo, the made-up people to choose from. */
export function SignInPage() {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const client = useQueryClient();
  const page = useQuery({ queryKey: key('sign-in-page'), queryFn: () => kept('sign-in-page', () => ask(api.GET('/api/sign-in-page'))) });
  const signIn = useAct({
    act: (who: { email: string; password: string }, once) => ask(api.POST('/api/session', { body: who, headers: once })),
    onDone: async () => {
      await client.resetQueries();
      queue.kick();
      const to = params.get('to') ?? (await usualPage());
      void navigate(to.startsWith('/') && !to.startsWith('//') ? to : '/');
    },
  });
  if (page.data?.firstRun) return <Navigate to="/first-run" replace />;
  const demo = page.data?.demo ?? [];
  return (
    <DoorSheet wide={demo.length > 0}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault();
          signIn.mutate({ email, password });
        }}
      >
        <MarkName />
        <h1>Sign in</h1>
        <Field label="E-mail">
          <Input type="email" autoComplete="username" autoFocus required value={email} onChange={(e) => setEmail(e.target.value)} />
        </Field>
        <Field label="Password">
          <Input type="password" autoComplete="current-password" required value={password} onChange={(e) => setPassword(e.target.value)} />
        </Field>
        <ProblemNote problem={signIn.error} />
        <Button next className="justify-center" disabled={signIn.isPending}>
          Sign in <Glyph name="go" size={15} />
        </Button>
        <p className="note">
          On a shared device: <TextLink to="/floor/sign-in">badge and PIN</TextLink>. Forgotten your password?{' '}
          <TextLink to="/forgotten">Have a link mailed</TextLink>
        </p>
      </form>
      {demo.length > 0 && (
        <section className="people" aria-label="People of the demo">
          <BlockHead>
            <h2>Step in as</h2>
            <span className="note">made-up people, one for each duty</span>
          </BlockHead>
          {demo.map((d) => (
            <button key={d.email} type="button" onClick={() => signIn.mutate({ email: d.email, password: d.password })}>
              <b>{d.name}</b>
              <span className="mid">{d.duty}</span>
              <span className="note">{d.email}</span>
              <span className="note">
                badge <span className="code">{d.badge}</span>, PIN <span className="code">{d.pin}</span>
              </span>
            </button>
          ))}
          <p className="note mt-3">
            Everybody’s password is <span className="code">{demo[0]?.password}</span>
          </p>
        </section>
      )}
    </DoorSheet>
  );
}
