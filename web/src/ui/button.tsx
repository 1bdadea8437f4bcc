import type { ComponentProps } from 'react';
import { Link } from 'react-router';
import { classes } from './classes';

/** `next` is the one thing to do next on a page: it has the highlighter, and only one has. */
interface Look {
  next?: boolean | undefined;
}

const act = ({ next, className }: Look & { className?: string | undefined }) => classes('act', next && 'act-next', className);
const words = ({ className }: { className?: string | undefined }) => classes('act-link', className);

/** An act that changes something. */
export const Button = ({ next, className, ...props }: ComponentProps<'button'> & Look) => (
  <button {...props} className={act({ next, className })} />
);
/** An act that leads to another page. */
export const ButtonLink = ({ next, className, ...props }: ComponentProps<typeof Link> & Look) => (
  <Link {...props} className={act({ next, className })} />
);
/** An act that the server answers with a file. */
export const ButtonAnchor = ({ next, className, ...props }: ComponentProps<'a'> & Look) => (
  <a {...props} className={act({ next, className })} />
);

/** A lesser act, as underlined words. */
export const TextButton = ({ className, ...props }: ComponentProps<'button'>) => <button {...props} className={words({ className })} />;
export const TextLink = ({ className, ...props }: ComponentProps<typeof Link>) => <Link {...props} className={words({ className })} />;
export const TextAnchor = ({ className, ...props }: ComponentProps<'a'>) => <a {...props} className={words({ className })} />;
/** Words that stand for the field within them, such as one that takes a file. */
export const TextLabel = ({ className, ...props }: ComponentProps<'label'>) => <label {...props} className={words({ className })} />;
export const TextSummary = ({ className, ...props }: ComponentProps<'summary'>) => <summary {...props} className={words({ className })} />;

/** The act of a row: in the first row it is the next thing to do, in the others words. */
export const RowLink = ({ first, ...props }: ComponentProps<typeof Link> & { first: boolean }) =>
  first ? <ButtonLink {...props} next /> : <TextLink {...props} />;
