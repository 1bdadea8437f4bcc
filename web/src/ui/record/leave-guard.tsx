import { lazy, Suspense } from 'react';
import { useBlocker } from 'react-router';
import { anythingUnkept, forgetDrafts } from './unkept';

const LeaveDialog = lazy(async () => ({ default: (await import('./leave-dialog')).LeaveDialog }));

/** Asks before a page is left on which something was written and not kept. One for the whole house. */
export function LeaveGuard() {
  const blocker = useBlocker(({ currentLocation, nextLocation }) => currentLocation.pathname !== nextLocation.pathname && anythingUnkept());
  if (blocker.state !== 'blocked') return null;
  const leave = () => {
    forgetDrafts();
    blocker.proceed();
  };
  return (
    <Suspense>
      <LeaveDialog onStay={() => blocker.reset()} onLeave={leave} />
    </Suspense>
  );
}
