import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask, type Dto } from '../api/client';
import { key } from '../api/keys';
import { tellSession } from '../api/session-ended';
import { useAct } from '../api/use-act';
import { forgetAnswers } from '../flow/kept';
import { queue } from '../flow/queue';
import { useScanner } from '../scanner/use-scanner';
import { Button, TextButton } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { Field } from '../ui/field';
import { Input } from '../ui/input';
import { ProblemNote } from '../ui/states';

type Typed = { badge: string; secret: string };

/** A sign-in that ended in the middle of something: it is renewed here, and what was in hand is still there. */
export function SignInAgain({ me }: { me: Dto['MeDto'] }) {
  const client = useQueryClient();
  const page = useQuery({ queryKey: key('sign-in-page'), queryFn: () => ask(api.GET('/api/sign-in-page')), retry: false });
  const [byBadge, setByBadge] = useState(me.device !== null && me.badge !== null);
  const [typed, setTyped] = useState<Typed>({ badge: me.badge ?? '', secret: '' });
  const goOn = useAct({
    act: async ({ badge, secret }: Typed, once) => {
      if (byBadge) await ask(api.POST('/api/session/badge', { body: { badge, pin: secret }, headers: once }));
      else await ask(api.POST('/api/session', { body: { email: me.email, password: secret }, headers: once }));
      return ask(api.GET('/api/session'));
    },
    onDone: async (now) => {
      // What is in hand here belongs to one person; another begins with empty hands.
      if (now.id !== me.id) {
        await forgetAnswers();
        window.location.assign(window.location.pathname.startsWith('/floor') ? '/floor' : '/');
        return;
      }
      tellSession(false);
      queue.kick();
      await client.invalidateQueries();
    },
    onFailed: () => setTyped((t) => ({ ...t, secret: '' })),
  });
  useScanner((code) => {
    setByBadge(true);
    setTyped({ badge: code.trim().toUpperCase(), secret: '' });
  });
  const isEnrolled = (page.data?.deviceName ?? me.device) !== null;
  return (
    <Dialog title="Your sign-in has ended" about={`${me.name}, sign in here and go on. Nothing on this page is lost.`}>
      <form
        className="flex flex-col gap-4 mt-4"
        onSubmit={(e) => {
          e.preventDefault();
          goOn.mutate(typed);
        }}
      >
        {byBadge && (
          <Field label="Badge, scanned or typed">
            <Input className="code" value={typed.badge} onChange={(e) => setTyped({ ...typed, badge: e.target.value.toUpperCase() })} />
          </Field>
        )}
        <Field label={byBadge ? 'PIN' : `Password of ${me.email}`}>
          <Input
            key={String(byBadge)}
            type="password"
            autoFocus
            required
            inputMode={byBadge ? 'numeric' : 'text'}
            autoComplete={byBadge ? 'off' : 'current-password'}
            value={typed.secret}
            onChange={(e) => setTyped({ ...typed, secret: e.target.value })}
          />
        </Field>
        <ProblemNote problem={goOn.error} />
        <div className="flex gap-5 items-center flex-wrap">
          <Button next disabled={goOn.isPending || typed.secret === ''}>
            Go on
          </Button>
          {isEnrolled && (
            <TextButton type="button" onClick={() => setByBadge(!byBadge)}>
              {byBadge ? 'Use the password' : 'Use badge and PIN'}
            </TextButton>
          )}
          <TextButton type="button" onClick={() => window.location.assign(me.device ? '/floor/sign-in' : '/sign-in')}>
            Somebody else
          </TextButton>
        </div>
      </form>
    </Dialog>
  );
}
