import { TextLink } from './button';
import { DoorSheet } from './door-sheet';

/** An address that leads nowhere. */
export function NothingHere() {
  return (
    <DoorSheet>
      <h1>There is nothing at this address</h1>
      <p className="mid">
        Go to <TextLink to="/">Now</TextLink>, or scan a code there to open its record.
      </p>
    </DoorSheet>
  );
}
