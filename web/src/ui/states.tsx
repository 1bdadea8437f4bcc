import type { ComponentProps, ReactNode } from 'react';
import { ProblemError } from '../api/client';
import { Button } from './button';
import { SkeletonLine } from './skeleton-line';
import { Glyph } from './glyph';
import { classes } from './classes';

/** What stands where rows will be, while they come. */
export function Skeleton({ rows = 8 }: { rows?: number }) {
  return (
    <div role="status" aria-label="Loading">
      {Array.from({ length: rows }, (_, i) => (
        <SkeletonLine key={i} width={`${88 - ((i * 17) % 42)}%`} apart={14} />
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

/** A frame around what is wrong; it says it aloud where it comes up by itself (role alert). */
export const Problem = ({ className, ...props }: ComponentProps<'div'>) => <div {...props} className={classes('problem', className)} />;

/** What happened, and a way on. */
export function ProblemNote({ problem, onRetry }: { problem: unknown; onRetry?: () => void }) {
  if (!problem) return null;
  const text = problem instanceof ProblemError ? problem.message : 'The server does not answer. What you did is kept; try again';
  return (
    <Problem role="alert">
      <Glyph name="blocked" size={18} />
      <p>{text}</p>
      {onRetry && (
        <Button type="button" onClick={onRetry}>
          Try again
        </Button>
      )}
    </Problem>
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
