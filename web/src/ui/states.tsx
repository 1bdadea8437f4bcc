import type { ReactNode } from 'react';
import { ProblemError } from '../api/client';

/** What stands where rows will be, while they come. */
export function Skeleton({ rows = 8 }: { rows?: number }) {
  return (
    <div role="status" aria-label="Loading">
      {Array.from({ length: rows }, (_, i) => (
        <span key={i} className="skel" style={{ width: `${88 - ((i * 17) % 42)}%`, margin: '14px 0' }} />
      ))}
    </div>
  );
}

/** Nothing here, and what to do next. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="empty">
      <b>{title}</b>
      {children}
    </div>
  );
}

/** What happened, and a way on. */
export function ProblemNote({ problem, onRetry }: { problem: unknown; onRetry?: () => void }) {
  if (!problem) return null;
  const text = problem instanceof ProblemError ? problem.message : 'The server does not answer. What you did is kept; try again';
  return (
    <div className="problem" role="alert">
      <span className="g g-blocked" aria-hidden style={{ fontSize: 18 }} />
      <p>{text}</p>
      {onRetry && (
        <button type="button" className="act" onClick={onRetry}>
          Try again
        </button>
      )}
    </div>
  );
}

/** Shows a query's rows, or its state. */
export function Shown<T>({
  query,
  children,
  rows,
}: {
  query: { data: T | undefined; error: unknown; isPending: boolean; refetch: () => unknown };
  children: (data: T) => ReactNode;
  rows?: number;
}) {
  if (query.data !== undefined) return <>{children(query.data)}</>;
  if (query.error) return <ProblemNote problem={query.error} onRetry={() => void query.refetch()} />;
  return <Skeleton rows={rows} />;
}
