import type { ComponentProps, ReactNode } from 'react';
import { Link } from 'react-router';
import { classes } from './classes';

/** Words in a row of which one is chosen: the parts of a stage, or what a list is narrowed to. */
export const WordRow = ({ className, ...props }: ComponentProps<'nav'>) => <nav {...props} className={classes('words', className)} />;

/** Words in a row that each lead to a page; the one that is open is underlined. */
export function WordLinks({
  label,
  links,
  here,
}: {
  label: string;
  links: readonly { to: string; says: ReactNode }[];
  here: string | undefined;
}) {
  return (
    <WordRow aria-label={label}>
      {links.map(({ to, says }) => (
        <Link key={to} to={to} aria-current={to === here ? 'true' : undefined}>
          {says}
        </Link>
      ))}
    </WordRow>
  );
}
