import { useBlocker } from 'react-router';
import { Button, TextButton } from '../button';
import { Dialog } from '../dialog';
import { anythingUnkept, forgetDrafts } from './unkept';

/** Asks before a page is left on which something was written and not kept. One for the whole house. */
export function LeaveGuard() {
  const blocker = useBlocker(({ currentLocation, nextLocation }) => currentLocation.pathname !== nextLocation.pathname && anythingUnkept());
  if (blocker.state !== 'blocked') return null;
  return (
    <Dialog title="This is not kept yet" about="What you have written here is lost if you leave it." onClose={() => blocker.reset()}>
      <div className="flex gap-5 items-center mt-4">
        <Button type="button" next autoFocus onClick={() => blocker.reset()}>
          Go on writing
        </Button>
        <TextButton
          type="button"
          onClick={() => {
            forgetDrafts();
            blocker.proceed();
          }}
        >
          Leave without keeping it
        </TextButton>
      </div>
    </Dialog>
  );
}
