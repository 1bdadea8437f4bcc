import type { ReactNode } from 'react';
import { useOutlet } from 'react-router';
import { Page } from './page';
import { classes } from './classes';

/** Whether a sheet stands beside the list: a record, or one that is being written. */
export const useBeside = (): boolean => useOutlet() !== null;

/**
 * A list, and the sheet beside it where one is open. Without a sheet the list has all the room there is; with one, no more
 * than `width`; where the screen is narrow, the sheet covers it.
 */
export function ListPage({
  title,
  width,
  grouped = false,
  className = '',
  children,
}: {
  title: string;
  width: number;
  /** Whether its rows stand under heads of their own. */
  grouped?: boolean;
  className?: string;
  children: ReactNode;
}) {
  const sheet = useOutlet();
  return (
    <div className="list-page" data-beside={sheet ? '' : undefined} style={{ ['--list' as string]: `${width}px` }}>
      <Page className={classes(grouped && 'pos', className) || undefined} aria-label={title} tabIndex={-1}>
        {!sheet && <h1 className="sr">{title}</h1>}
        {children}
      </Page>
      {sheet}
    </div>
  );
}
