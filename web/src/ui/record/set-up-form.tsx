import type { ReactNode } from 'react';
import type { FieldValues } from 'react-hook-form';
import { BlockHead } from '../page';
import { type FieldWords, RecordBody } from './record-form';
import type { RecordState } from './use-record';

/** Something of the company that is changed where it stands: what it is, its fields, and the act that keeps them. */
export function SetUpForm<V extends FieldValues>({
  title,
  note,
  keep,
  record,
  words,
  ready = true,
  children,
}: {
  title?: string;
  note?: ReactNode;
  keep: string;
  record: RecordState<V>;
  words: Readonly<Record<string, FieldWords>>;
  ready?: boolean;
  children: ReactNode;
}) {
  return (
    <div>
      {title && (
        <BlockHead>
          <h2>{title}</h2>
          {note && <span className="note">{note}</span>}
        </BlockHead>
      )}
      <RecordBody record={record} words={words} keep={keep} ready={ready && record.form.formState.isDirty} quiet wide>
        {children}
      </RecordBody>
    </div>
  );
}
