import type { ComponentProps } from 'react';
import { classes } from './classes';

/** What a menu or a small choice opens on. */
export const MenuPaper = ({ className, ...props }: ComponentProps<'div'>) => <div {...props} className={classes('menu', className)} />;
