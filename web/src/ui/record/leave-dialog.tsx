import { Button, TextButton } from '../button';
import { Dialog } from '../dialog';

/** What was written is about to be left: stay with it, or let it go. */
export function LeaveDialog({ onStay, onLeave }: { onStay: () => void; onLeave: () => void }) {
  return (
    <Dialog title="This is not kept yet" about="What you have written here is lost if you leave it." onClose={onStay}>
      <div className="flex gap-5 items-center mt-4">
        <Button type="button" next autoFocus onClick={onStay}>
          Go on writing
        </Button>
        <TextButton type="button" onClick={onLeave}>
          Leave without keeping it
        </TextButton>
      </div>
    </Dialog>
  );
}
