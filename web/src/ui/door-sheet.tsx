import type { ReactNode } from 'react';
import { classes } from './classes';

/** A paper in the middle of the screen, before anybody is signed in. `wide` has room for two columns. */
export function DoorSheet({ wide = false, children }: { wide?: boolean; children: ReactNode }) {
  return (
    <div className="door" data-face="office">
      <main className={classes('door-sheet', !wide && 'one')}>{children}</main>
    </div>
  );
}
