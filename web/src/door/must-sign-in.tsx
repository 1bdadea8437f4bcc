import { lazy, Suspense } from 'react';
import { Navigate, Outlet, useLocation } from 'react-router';
import { ProblemError } from '../api/client';
import { useMe } from '../api/queries';
import { useSessionEnded } from '../api/session-ended';
import { LeaveGuard } from '../ui/record/leave-guard';
import { draftsAreOf } from '../ui/record/unkept';
import { ProblemNote, Skeleton } from '../ui/states';

// Read when it is needed: most days it is not.
const SignInAgain = lazy(async () => ({ default: (await import('./sign-in-again')).SignInAgain }));

/** Lets nobody in without a session; remembers where they wanted to go. */
export function MustSignIn() {
  const me = useMe();
  const { pathname, search } = useLocation();
  const ended = useSessionEnded();
  if (me.data) {
    draftsAreOf(me.data.id);
    return (
      <>
        <Outlet />
        <LeaveGuard />
        {ended && (
          <Suspense>
            <SignInAgain me={me.data} />
          </Suspense>
        )}
      </>
    );
  }
  const door = pathname.startsWith('/floor') ? '/floor/sign-in' : '/sign-in';
  if (me.error instanceof ProblemError && me.error.status === 401)
    return <Navigate to={`${door}?to=${encodeURIComponent(pathname + search)}`} replace />;
  return <div className="p-6">{me.error ? <ProblemNote problem={me.error} onRetry={() => void me.refetch()} /> : <Skeleton />}</div>;
}
