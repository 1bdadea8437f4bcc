import type { ReactNode } from 'react';
import { type Once, useAct } from '../api/use-act';
import { TextButton } from './button';
import { ProblemNote } from './states';

/** Whether the other side has a secret that signs what it sends, and a new one for it, which is shown this once. */
export function SecretSection({
  label,
  says,
  word,
  has,
  give,
  signs,
  address,
  more,
}: {
  label: string;
  says: string;
  /** What the other side calls it. */
  word: 'key' | 'secret';
  has: boolean;
  give: (once: Once) => Promise<string>;
  /** What is signed with it, and where that is posted to. */
  signs: string;
  address: string;
  more?: ReactNode;
}) {
  const giving = useAct({ act: (_: void, once) => give(once) });
  return (
    <section className="mt-2" aria-label={label}>
      <p>
        {says}{' '}
        <TextButton type="button" disabled={giving.isPending} onClick={() => giving.mutate()}>
          {has ? `Give it a new ${word}` : `Give it a ${word}`}
        </TextButton>
      </p>
      {giving.data && (
        <p className="mt-1" role="status">
          <b>Copy this now, it is shown once:</b> <span className="code break-all">{giving.data}</span>
          <span className="note block">
            It signs {signs} with HMAC-SHA256 in X-Signature and posts it to{' '}
            <span className="code">
              {window.location.origin}
              {address}
            </span>
            . {more}
          </span>
        </p>
      )}
      <ProblemNote problem={giving.error} />
    </section>
  );
}
