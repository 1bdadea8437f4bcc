import type { ComponentProps } from 'react';
import { classes } from '../classes';

/** The order across the top of the packing table. */
export const BenchTitle = ({ className, ...props }: ComponentProps<'div'>) => <div {...props} className={classes('btitle', className)} />;
/** What is still to be packed beside the parcel that is open. */
export const BenchColumns = ({ className, ...props }: ComponentProps<'div'>) => <div {...props} className={classes('bcols', className)} />;
export const BenchSide = ({ className, ...props }: ComponentProps<'div'>) => <div {...props} className={classes('bleft', className)} />;
/** The tape, the label and the keys at the foot. */
export const BenchFoot = ({ className, ...props }: ComponentProps<'footer'>) => (
  <footer {...props} className={classes('bfoot', className)} />
);

/** Rows to be read at arm's length. */
export const BenchList = ({ className, ...props }: ComponentProps<'ul'>) => <ul {...props} className={classes('bul', className)} />;
export const BenchItem = ({ next, isIn, className = '', ...props }: ComponentProps<'li'> & { next?: boolean; isIn?: boolean }) => (
  <li {...props} className={classes(next ? 'to-do' : isIn && 'in', className) || undefined} />
);
