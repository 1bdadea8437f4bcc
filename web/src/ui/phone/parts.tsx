import type { ComponentProps } from 'react';
import { Link } from 'react-router';
import { classes } from '../classes';

interface Next {
  /** The one thing to do next: it has the highlighter. */
  next?: boolean | undefined;
}

const key = ({ next, className }: Next & { className?: string | undefined }) => classes('f-key', next && 'next', className);

/** A key as large as a gloved thumb. */
export const Key = ({ next, className, ...props }: ComponentProps<'button'> & Next) => (
  <button {...props} className={key({ next, className })} />
);
export const KeyLink = ({ next, className, ...props }: ComponentProps<typeof Link> & Next) => (
  <Link {...props} className={key({ next, className })} />
);
export const KeyLabel = ({ next, className, ...props }: ComponentProps<'label'> & Next) => (
  <label {...props} className={key({ next, className })} />
);
/** A lesser act within what the screen says, as underlined words. */
export const PhoneLink = (props: Omit<ComponentProps<'button'>, 'className'>) => <button {...props} type="button" className="f-link" />;
/** The keys at the foot of a screen. */
export const Keys = ({ className, ...props }: ComponentProps<'div'>) => <div {...props} className={classes('f-keys', className)} />;

/** The whole screen of a phone. */
export const PhoneFrame = ({ className, ...props }: ComponentProps<'main'>) => <main {...props} className={classes('floor', className)} />;
/** A piece of it, where parts are looked at beside each other. */
export const PhonePiece = (props: ComponentProps<'div'>) => <div {...props} className="floor" data-face="floor" />;
/** The way back, what is being done, and for which document. */
export const PhoneHead = ({ className, ...props }: ComponentProps<'header'>) => (
  <header {...props} className={classes('f-head', className)} />
);
/** What scrolls between head and keys; also with keys, where nothing in it can be pressed. */
export const PhoneBody = ({ className, ...props }: ComponentProps<'div'>) => (
  <div tabIndex={0} {...props} className={classes('f-body', className)} />
);
/** What the screen asks for: the next scan. */
export const Ask = ({ className, ...props }: ComponentProps<'h1'>) => <h1 {...props} className={`f-ask ask ${className}`} />;
/** What the screen has to say beside it. */
export const Say = ({ className, ...props }: ComponentProps<'p'>) => <p {...props} className={classes('ask', className)} />;

/** Rows that lead on, each as high as a thumb. */
export const PhoneList = ({ className, ...props }: ComponentProps<'ul'>) => <ul {...props} className={classes('f-list', className)} />;
export const PhoneItem = ({ next, className = '', ...props }: ComponentProps<'li'> & Next) => (
  <li {...props} className={classes(next && 'next', className) || undefined} />
);
/** What stands in the place of rows where there are none. */
export const NoItem = ({ className, ...props }: ComponentProps<'li'>) => <li {...props} className={`ask text-[18px] ${className}`} />;
/** The goods in hand, on paper. */
export const GoodsCard = ({ className, ...props }: ComponentProps<'div'>) => <div {...props} className={classes('f-card', className)} />;
/** The goods to be taken, or where they go; `here`: whoever takes them stands there. */
export const TaskCard = ({ here, className, ...props }: ComponentProps<'div'> & { here?: boolean }) => (
  <div {...props} className={classes('p-card', here && 'here', className)} />
);

/** A field for what is typed instead of scanned, with its key. */
export const Typed = ({ className, ...props }: ComponentProps<'form'>) => <form {...props} className={classes('typed', className)} />;
/** How many, in figures that are read at arm's length, with what they are of. */
export const Count = ({ className, ...props }: ComponentProps<'div'>) => <div {...props} className={classes('say', className)} />;
/** The keys with figures. */
export const FigureKeys = ({ className, ...props }: ComponentProps<'div'>) => <div {...props} className={classes('pad', className)} />;
/** A key of the pad that says a word. */
export const WordKey = ({ broad, className = '', ...props }: ComponentProps<'button'> & { broad?: boolean }) => (
  <button {...props} className={classes('w', broad && 'broad', className)} />
);
/** A key, or the room of one, that is two keys wide. */
export const BroadKey = (props: Omit<ComponentProps<'button'>, 'className'>) => <button {...props} className="broad" />;
export const BroadGap = () => <span className="broad" style={{ background: 'var(--color-paper)' }} />;
/** The way from stop to stop, drawn as a line. */
export const Route = ({ className, ...props }: ComponentProps<'div'>) => <div {...props} className={classes('route', className)} />;
export const RouteNode = ({ last, className = '', ...props }: ComponentProps<'span'> & { last?: boolean }) => (
  <span {...props} className={classes('node', last && 'last', className)} />
);
/** How many to take, and of what; `several`: in more than one pack, or where room is wanted. */
export const ToTake = ({ several, className, ...props }: ComponentProps<'div'> & { several?: boolean }) => (
  <div {...props} className={classes('qty', several && 'several', className)} />
);
export const OfEach = ({ className, ...props }: ComponentProps<'span'>) => <span {...props} className={classes('each', className)} />;
