import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Outlet, useNavigate } from 'react-router';
import { useLive } from '../api/live';
import { useCameraOpen } from '../camera/camera-open';
import { CameraPanel } from '../camera/camera-panel';
import { keptLook, KeptWord } from '../flow/kept-word';
import { keepShell, useNewShell } from '../flow/shell-worker';
import { QuestionsWord } from './questions-page';
import { useMe } from '../api/queries';
import { useSignOut } from '../door/use-sign-out';
import { useScanner } from '../scanner/use-scanner';
import { ScanContext, type ScanHandler } from './scan-context';
import { PhoneFrame } from '../ui/phone/parts';

const BADGE = /^V-\d{3,}$/i;

/** The phone's face. A scanned badge changes the person at once; every other scan goes to the page that is open. */
export function FloorShell() {
  const up = useLive();
  const me = useMe();
  const handler = useRef<ScanHandler | null>(null);
  const [stray, setStray] = useState<string | null>(null);
  const navigate = useNavigate();
  const signOut = useSignOut();
  const scan = useCallback<ScanHandler>(
    (code, how) => {
      setStray(null);
      if (BADGE.test(code.trim()))
        signOut(`/floor/sign-in?badge=${encodeURIComponent(code.trim().toUpperCase())}`).catch(() =>
          setStray('No network: the person stays'),
        );
      else if (handler.current) handler.current(code, how);
      else setStray(code);
    },
    [signOut],
  );
  useScanner((code) => scan(code, 'scanned'));
  const [camera, setCamera] = useCameraOpen();
  const shell = useNewShell();
  useEffect(keepShell, []);
  const context = useMemo(() => ({ scan, set: (h: ScanHandler | null) => (handler.current = h) }), [scan]);
  return (
    <ScanContext.Provider value={context}>
      <PhoneFrame data-face="floor">
        {camera && <CameraPanel onClose={() => setCamera(false)} />}
        {!up && (
          <p role="status" className="px-[18px] py-2 font-semibold bg-[var(--color-ink-wash)]">
            No network. Scans are kept here
          </p>
        )}
        <KeptWord />
        <QuestionsWord />
        {shell.fresh && (
          <button type="button" className={keptLook()} onClick={shell.use}>
            A newer version is here. Use it now
          </button>
        )}
        {stray && (
          <p role="alert" className="px-[18px] py-2 font-semibold">
            {stray.startsWith('No network')
              ? `${stray} ${me.data?.name ?? 'the same'} until it is back`
              : `${stray}: choose what you are doing first`}
          </p>
        )}
        <Outlet />
        <PersonLine onChange={() => void navigate('/floor/sign-in')} />
      </PhoneFrame>
    </ScanContext.Provider>
  );
}

function PersonLine({ onChange }: { onChange: () => void }) {
  const me = useMe();
  return (
    <p className="flex justify-between px-[18px] pb-[10px] pt-1 text-[15px] leading-[20px] text-[color:var(--color-ink-2)]">
      <span>{me.data?.name}</span>
      <button type="button" className="underline min-h-[44px] -my-3 px-2 -mr-2" onClick={onChange}>
        Change person
      </button>
    </p>
  );
}
