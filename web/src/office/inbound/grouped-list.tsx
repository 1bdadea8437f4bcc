import type { ReactNode } from 'react';

/** Records under the words that say what forces action. */
export function GroupedList<T extends { code: string }>({
  groups,
  row,
}: {
  groups: readonly (readonly [string, readonly T[]])[];
  row: (one: T) => ReactNode;
}) {
  return groups.map(([name, list]) => (
    <section key={name} aria-label={name}>
      <h2>{name}</h2>
      <ul>{list.map(row)}</ul>
    </section>
  ));
}
