import { useCallback, useMemo, useRef, useState } from 'react';
import { Outlet, useNavigate } from 'react-router';
import { useLive } from '../api/live';
import { useMe } from '../api/queries';
import { useSignOut } from '../office/shell';
import { useScanner } from '../ui/scanner';
import { ScanContext, type ScanHandler } from './scan-context';

const BADGE = /^V-\d{3,}$/i;

/** The phone's face. A scanned badge changes the person at once; every other scan goes to the page that is open. */
export function FloorShell() {
  const up = useLive();
  const handler = useRef<ScanHandler | null>(null);
  const [stray, setStray] = useState<string | null>(null);
  const navigate = useNavigate();
  const signOut = useSignOut();
  const scan = useCallback<ScanHandler>(
    (code, how) => {
      setStray(null);
      if (BADGE.test(code.trim())) void signOut(`/floor/sign-in?badge=${encodeURIComponent(code.trim().toUpperCase())}`);
      else if (handler.current) handler.current(code, how);
      else setStray(code);
    },
    [signOut],
  );
  useScanner((code) => scan(code, 'scanned'));
  const context = useMemo(() => ({ scan, set: (h: ScanHandler | null) => (handler.current = h) }), [scan]);
  return (
    <ScanContext.Provider value={context}>
      <main className="floor" data-face="floor">
        {!up && (
          <p role="status" className="px-[18px] py-2 font-semibold bg-[var(--color-ink-wash)]">
            No network. What you scan is kept and sent later
          </p>
        )}
        {stray && (
          <p role="alert" className="px-[18px] py-2 font-semibold">
            {stray}: choose what you are doing first
          </p>
        )}
        <Outlet />
        <PersonLine onChange={() => void navigate('/floor/sign-in')} />
      </main>
    </ScanContext.Provider>
  );
}

function PersonLine({ onChange }: { onChange: () => void }) {
  const me = useMe();
  return (
    <p className="flex justify-between px-[18px] pb-[10px] pt-1 text-[15px] leading-[20px] text-[color:var(--color-ink-2)]">
      <span>{me.data?.name}</span>
      <button type="button" className="underline min-h-[28px]" onClick={onChange}>
        Change person
      </button>
    </p>
  );
}
