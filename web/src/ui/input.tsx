import type { ComponentProps } from 'react';
import { classes } from './classes';

/** A field on one line. */
export const Input = ({ className, ...props }: ComponentProps<'input'>) => <input {...props} className={classes('input', className)} />;
/** One of several values. */
export const Select = ({ className, ...props }: ComponentProps<'select'>) => <select {...props} className={classes('input', className)} />;
/** A field of several lines. */
export const TextArea = ({ className, ...props }: ComponentProps<'textarea'>) => (
  <textarea {...props} className={classes('input', className)} />
);
