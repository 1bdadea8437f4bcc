import type { ReactNode } from 'react';
import { WordRow } from './word-links';

/** A caption over its input, with the fault beneath where there is one. */
export function Field({
  label,
  fault,
  children,
  className = '',
}: {
  label: string;
  fault?: string | undefined;
  children: ReactNode;
  className?: string;
}) {
  return (
    <label className={`field ${className}`}>
      <span>{label}</span>
      {children}
      {fault && (
        <em className="fault not-italic" role="alert">
          {fault}
        </em>
      )}
    </label>
  );
}

/** Words as filters: the chosen one is underlined. */
export function Words<T extends string>({
  words,
  value,
  onChange,
  label,
}: {
  words: { value: T; says: string; count?: number }[];
  value: T;
  onChange: (value: T) => void;
  label: string;
}) {
  return (
    <WordRow aria-label={label}>
      {words.map((w) => (
        <a
          key={w.value}
          href={`#${w.value}`}
          aria-current={w.value === value ? 'true' : undefined}
          onClick={(e) => {
            e.preventDefault();
            onChange(w.value);
          }}
        >
          {w.says} {w.count !== undefined && <b>{w.count}</b>}
        </a>
      ))}
    </WordRow>
  );
}
