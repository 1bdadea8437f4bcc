import type { ComponentProps } from 'react';
import { classes } from './classes';

/** Many rows of one line: a list, or figures. */
export const DenseTable = ({ className, ...props }: ComponentProps<'table'>) => (
  <table {...props} className={classes('dense', className)} />
);
/** Rows of two lines: what a document holds. */
export const LinesTable = ({ className, ...props }: ComponentProps<'table'>) => (
  <table {...props} className={classes('lines', className)} />
);

/** The narrow cell of a row's sign. */
export const GlyphCell = ({ className, ...props }: ComponentProps<'td'>) => <td {...props} className={classes('gl', className)} />;
/** The cell of a row's picture. */
export const PictureCell = ({ className, ...props }: ComponentProps<'td'>) => <td {...props} className={classes('pc', className)} />;
/** The cell of a line's number. */
export const NumberCell = ({ className, ...props }: ComponentProps<'td'>) => <td {...props} className={classes('ln', className)} />;
/** The cell that chooses a row, and does not open it. `withShift`: the key was held, to choose all from the one before. */
export const ChooseCell = ({
  says,
  checked,
  onChoose,
  ...props
}: {
  says: string;
  checked: boolean;
  onChoose: (on: boolean, withShift: boolean) => void;
} & Pick<ComponentProps<'td'>, 'role' | 'className' | 'aria-label'>) => (
  <td {...props} onClick={(e) => e.stopPropagation()}>
    <label className="justify-center">
      <input
        type="checkbox"
        aria-label={says}
        checked={checked}
        onChange={(e) => onChoose(e.target.checked, (e.nativeEvent as Partial<MouseEvent>).shiftKey === true)}
      />
    </label>
  </td>
);
