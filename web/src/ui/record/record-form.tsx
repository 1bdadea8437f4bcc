import type { ReactNode } from 'react';
import { type FieldValues, FormProvider } from 'react-hook-form';
import { Glyph } from '../glyph';
import { Acts } from '../page';
import { Sheet } from '../sheet';
import { ProblemNote } from '../states';
import { FaultContext } from './fields';
import type { RecordState } from './use-record';
import { TextButton, Button } from '../button';

/** Words for a field and its values, where a conflict is shown. */
export interface FieldWords {
  label: string;
  show?: (value: never) => string;
}

function shown(words: FieldWords | undefined, value: unknown): string {
  if (words?.show) return words.show(value as never) || 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value))
    return value.map((v) => (typeof v === 'object' ? Object.values(v as object).join(' ') : String(v))).join(', ') || 'nothing';
  return typeof value === 'string' || typeof value === 'number' ? String(value) || 'nothing' : 'nothing';
}

/** What two people have changed, each in their way: both values, and which of them stays. */
function Conflicts<V extends FieldValues>({ record, words }: { record: RecordState<V>; words: Readonly<Record<string, FieldWords>> }) {
  if (record.conflicts.length === 0) return null;
  return (
    <section role="alert" aria-label="Changed meanwhile" className="border-[1.5px] border-ink p-3 grid gap-2">
      <b>Somebody changed this while you were writing. Choose what stays</b>
      {record.conflicts.map((c) => {
        const field = words[c.field];
        return (
          <div key={c.field} className="grid gap-x-4 gap-y-1 items-baseline sm:grid-cols-[120px_1fr_1fr]">
            <span className="note">{field?.label ?? c.field}</span>
            {(['mine', 'theirs'] as const).map((whose) => (
              <span key={whose} className="flex gap-3 items-baseline min-w-0">
                <TextButton type="button" onClick={() => record.choose(c.field, whose)}>
                  {whose === 'mine' ? 'Keep yours' : 'Take theirs'}
                </TextButton>
                <span className="min-w-0 break-words">{shown(field, c[whose])}</span>
              </span>
            ))}
          </div>
        );
      })}
    </section>
  );
}

interface Body<V extends FieldValues> {
  record: RecordState<V>;
  words: Readonly<Record<string, FieldWords>>;
  /** What the button says. */
  keep: string;
  /** Whether it can be kept; what is missing stands in `more`. */
  ready?: boolean;
  /** Acts beside it. */
  more?: ReactNode;
  /** Whether it takes all the room there is. */
  wide?: boolean;
  /** Whether something else on the sheet is the next thing to do. */
  quiet?: boolean;
  children: ReactNode;
}

/** The form itself: its fields, what others have changed meanwhile, what is against it, and the one act that keeps it. */
export function RecordBody<V extends FieldValues>({
  record,
  words,
  keep,
  ready = true,
  more,
  wide = false,
  quiet = false,
  children,
}: Body<V>) {
  const open = record.conflicts.length > 0;
  const acts = (
    <>
      <Button next={!quiet} disabled={record.isSaving || open || !ready}>
        {open ? 'Choose what stays first' : keep} {!quiet && <Glyph name="go" size={13} />}
      </Button>
      {more}
    </>
  );
  return (
    <FormProvider {...record.form}>
      <FaultContext value={record.fault}>
        <form
          className={`flex flex-col gap-3 mt-3 w-full ${quiet ? '' : 'flex-1'} ${wide ? '' : 'max-w-[760px]'}`}
          onSubmit={record.submit}
          noValidate
        >
          {record.restored && (
            <p role="status" className="flex gap-3 items-baseline">
              <span className="mid">What you had written here is back.</span>
              <TextButton type="button" onClick={record.restored.forget}>
                Begin afresh
              </TextButton>
            </p>
          )}
          {children}
          <Conflicts record={record} words={words} />
          <ProblemNote problem={record.problem} />
          {quiet ? <div className="flex gap-3">{acts}</div> : <Acts>{acts}</Acts>}
        </form>
      </FaultContext>
    </FormProvider>
  );
}

/** A record being written, on a sheet of its own. */
export function RecordForm<V extends FieldValues>({
  address,
  title,
  about,
  code,
  back,
  above,
  beneath,
  ...body
}: Body<V> & {
  address: string;
  title: string;
  about?: ReactNode;
  /** The barcode that opens it. */
  code?: string | undefined;
  back: string;
  above?: ReactNode;
  beneath?: ReactNode;
}) {
  return (
    <Sheet address={address} title={title} about={about} back={back} {...(code ? { code } : {})}>
      {above}
      <RecordBody {...body} />
      {beneath}
    </Sheet>
  );
}
