import { age } from './format';
import { Glyph } from './glyph';
import { OpenRow } from './open-row';
import { DenseTable, GlyphCell } from './table';

/** Something that came from outside and could not be taken in. */
export interface UnreadRow {
  id: number;
  from: string;
  /** The sender's own number of it; left out of the table where no row can have one. */
  ref?: string | null;
  why: string;
  state: string;
  cameAt: string;
}

/** How a message or document stands that could not be taken in. */
export const UNREAD_STATES: Readonly<Record<string, string>> = { waiting: 'waits', 'taken-in': 'taken in', 'set-aside': 'set aside' };
const glyphOf = (state: string) => (state === 'waiting' ? 'blocked' : state === 'taken-in' ? 'full' : 'held');

/** What came and could not be taken in, with what is against it. */
export function UnreadTable({
  rows,
  heads,
  to,
  open,
}: {
  rows: readonly UnreadRow[];
  /** What the sender, and the sender's number, are called. */
  heads: { from: string; ref?: string };
  /** The page that its rows open on. */
  to: string;
  open: string | undefined;
}) {
  return (
    <DenseTable>
      <thead>
        <tr>
          <td className="w-6" />
          <th>{heads.from}</th>
          {heads.ref && <th>{heads.ref}</th>}
          <th>What is against it</th>
          <th>State</th>
          <th className="num">Came</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <OpenRow key={r.id} to={`${to}/${r.id}`} open={String(r.id) === open} soft={r.state !== 'waiting'}>
            <GlyphCell>
              <Glyph name={glyphOf(r.state)} size={14} says />
            </GlyphCell>
            <td>{r.from}</td>
            {heads.ref && <td className="code">{r.ref}</td>}
            <td className="max-w-[420px] overflow-hidden text-ellipsis">{r.why}</td>
            <td className="mid">{UNREAD_STATES[r.state] ?? r.state}</td>
            <td className="num mid">{age(r.cameAt)}</td>
          </OpenRow>
        ))}
      </tbody>
    </DenseTable>
  );
}
