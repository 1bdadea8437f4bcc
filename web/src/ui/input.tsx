import type { ComponentProps } from 'react';
import { classes } from './classes';

/** A comma that stands for the point of a decimal, as much of the world types it: "0,42". One that parts thousands is left alone. */
export const withPoint = (typed: string): string => (/^\s*-?\d*,\d*\s*$/.test(typed) ? typed.replace(',', '.') : typed);

/** A field on one line. Decimals are typed with comma or point. */
export function Input({ className, onChange, ...props }: ComponentProps<'input'>) {
  const isDecimal = props.inputMode === 'decimal';
  return (
    <input
      {...props}
      className={classes('input', className)}
      onChange={
        isDecimal && onChange
          ? (e) => {
              const { value, selectionStart: caret } = e.target;
              if (withPoint(value) !== value) {
                e.target.value = withPoint(value);
                e.target.setSelectionRange(caret, caret);
              }
              onChange(e);
            }
          : onChange
      }
    />
  );
}
/** One of several values. */
export const Select = ({ className, ...props }: ComponentProps<'select'>) => <select {...props} className={classes('input', className)} />;
/** A field of several lines. */
export const TextArea = ({ className, ...props }: ComponentProps<'textarea'>) => (
  <textarea {...props} className={classes('input', className)} />
);
