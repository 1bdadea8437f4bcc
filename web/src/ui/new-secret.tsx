import type { ReactNode } from 'react';

/** A key or secret that was just given: shown this once, with what it is for. */
export function NewSecret({ secret, children }: { secret: string | undefined; children: ReactNode }) {
  if (!secret) return null;
  return (
    <p className="mt-1" role="status">
      <b>Copy this now, it is shown once:</b> <span className="code break-all">{secret}</span>
      <span className="note block">{children}</span>
    </p>
  );
}
