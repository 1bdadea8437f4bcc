import type { ComponentProps } from 'react';
import { classes } from './classes';

/** A page of the office that has no sheet beside it. */
export const Page = ({ className, ...props }: ComponentProps<'section'>) => <section {...props} className={classes('list', className)} />;
/** What narrows a list, and where else it leads: the line above it. */
export const FilterLine = ({ className, ...props }: ComponentProps<'div'>) => <div {...props} className={classes('filter', className)} />;
/** The head of a block: its heading, and what is to be said or done about it. */
export const BlockHead = ({ className, ...props }: ComponentProps<'div'>) => (
  <div {...props} className={classes('block-head', className)} />
);
/** What can be done with a record, at the foot of its sheet. */
export const Acts = ({ className, ...props }: ComponentProps<'div'>) => <div {...props} className={classes('acts', className)} />;
/** The same for a record whose acts need something typed. */
export const ActsForm = ({ className, ...props }: ComponentProps<'form'>) => <form {...props} className={classes('acts', className)} />;
/** Words that stand for themselves, such as the sentence over a chart. */
export const Sentence = ({ className, ...props }: ComponentProps<'p'>) => <p {...props} className={classes('saywords', className)} />;
/** The same as the heading of a page. */
export const SentenceHead = ({ className, ...props }: ComponentProps<'h1'>) => <h1 {...props} className={classes('saywords', className)} />;
/** What an act has done, beside it. */
export const Said = ({ className, ...props }: ComponentProps<'p'>) => <p {...props} className={classes('said', className)} />;
