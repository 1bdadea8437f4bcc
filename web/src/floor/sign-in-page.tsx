import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useAct } from '../api/use-act';
import { key } from '../api/keys';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { queue } from '../flow/queue';
import { kept } from '../flow/kept';
import { api, ask } from '../api/client';
import { useCameraOpen } from '../camera/camera-open';
import { CameraPanel } from '../camera/camera-panel';
import { useScanner } from '../scanner/use-scanner';
import { ProblemNote } from '../ui/states';
import { PhoneFrame, PhoneHead, Ask, Say, Key, Typed, FigureKeys, WordKey } from '../ui/phone/parts';

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', 'Clear', '0', 'In'];
const MOST_DIGITS = 8;

/** Back to the task that somebody was at, which keeps what was in hand for them. */
const wayBack = (to: string | null) => (to && /^\/(floor|bench)(\/|$)/.test(to) ? to : '/floor');

/** Badge and PIN on a shared phone: scan the badge, key the PIN. */
export function FloorSignIn() {
  const [params, setParams] = useSearchParams();
  const badge = params.get('badge') ?? '';
  const [pin, setPin] = useState('');
  const [camera, setCamera] = useCameraOpen();
  const client = useQueryClient();
  const navigate = useNavigate();
  const page = useQuery({ queryKey: key('sign-in-page'), queryFn: () => kept('sign-in-page', () => ask(api.GET('/api/sign-in-page'))) });
  const signIn = useAct({
    act: (_: void, once) => ask(api.POST('/api/session/badge', { body: { badge, pin }, headers: once })),
    onDone: async () => {
      await client.resetQueries();
      queue.kick();
      void navigate(wayBack(params.get('to')));
    },
    onFailed: () => setPin(''),
  });
  const withBadge = (code: string) =>
    setParams((now) => {
      now.set('badge', code.trim().toUpperCase());
      return now;
    });
  useScanner((code) => {
    setPin('');
    withBadge(code);
  });
  const press = (key: string) => {
    if (key === 'Clear') setPin('');
    else if (key === 'In') signIn.mutate();
    else setPin((p) => (p.length < MOST_DIGITS ? p + key : p));
  };
  const notEnrolled = page.data && page.data.deviceName === null;
  return (
    <PhoneFrame data-face="floor">
      {camera && <CameraPanel onClose={() => setCamera(false)} />}
      <PhoneHead>
        <span>{page.data?.deviceName ?? 'This device'}</span>
        <span />
        <Link to={`/sign-in?${params.toString()}`} className="text-[15px] underline">
          Use a password
        </Link>
      </PhoneHead>
      <Ask>{badge ? 'Your PIN' : 'Scan your badge'}</Ask>
      {notEnrolled && (
        <Say className="text-[18px]">
          This device is not enrolled. In the office, open Setup, Devices, show a code, then{' '}
          <Link to="/enrol" className="underline">
            enrol this device
          </Link>
          .
        </Say>
      )}
      <Typed
        className="mt-4"
        onSubmit={(e) => {
          e.preventDefault();
          withBadge(new FormData(e.currentTarget).get('badge') as string);
        }}
      >
        <input name="badge" key={badge} defaultValue={badge} aria-label="Badge" placeholder="V-1005" autoFocus={!badge} />
        <Key className="px-4">Badge</Key>
        {!camera && (
          <Key type="button" className="px-4" onClick={() => setCamera(true)}>
            Camera
          </Key>
        )}
      </Typed>
      <p role="img" className="px-[18px] text-[40px] leading-[52px] tracking-[.3em]" aria-label={`${pin.length} digits`}>
        {'•'.repeat(pin.length) || ' '}
      </p>
      <div className="mx-[14px]" style={{ color: 'var(--color-ink)' }}>
        <ProblemNote problem={signIn.error} />
      </div>
      <FigureKeys style={{ marginTop: 'auto', marginBottom: 14 }}>
        {KEYS.map((k) => {
          const Pressed = k.length > 1 ? WordKey : 'button';
          return (
            <Pressed
              key={k}
              type="button"
              disabled={k === 'In' && (pin.length < 4 || !badge)}
              onClick={() => press(k)}
              style={k === 'In' && pin.length >= 4 && badge ? { background: 'var(--color-mark)', color: '#050810' } : undefined}
            >
              {k}
            </Pressed>
          );
        })}
      </FigureKeys>
    </PhoneFrame>
  );
}
