import type { Dto } from '../../api/client';
import { clock, day } from '../../ui/format';
import { LinesTable } from '../../ui/table';

/** What changed on the order after it was placed, newest first. */
export function OrderHistory({ changes }: { changes: Dto['OrderChangeDto'][] }) {
  if (changes.length === 0) return null;
  return (
    <LinesTable aria-label="History">
      <thead>
        <tr>
          <th>Changed since placing</th>
          <th>Was</th>
          <th>Is</th>
          <th>By</th>
        </tr>
      </thead>
      <tbody>
        {changes.map((c, i) => (
          <tr key={i}>
            <td>
              {c.line === null ? 'the order’s' : `line ${c.line},`} {c.what}
              {c.why && <span className="note">{c.why}</span>}
            </td>
            <td>{c.was}</td>
            <td>
              <b>{c.becomes}</b>
            </td>
            <td className="note">
              {day(c.at)} {clock(c.at)} {c.by}
            </td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}
