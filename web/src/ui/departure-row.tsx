import type { DepartureGroup } from './by-departure';

/** The head of the rows that must catch one departure. */
export function DepartureRow({ group, columns }: { group: Pick<DepartureGroup<unknown>, 'title' | 'note'>; columns: number }) {
  return (
    <tr className="grp">
      <td colSpan={4}>{group.title}</td>
      <td colSpan={columns - 4} className="num">
        <span className="note">{group.note}</span>
      </td>
    </tr>
  );
}
