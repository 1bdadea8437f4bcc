import type { Dto } from '../api/client';
import type { KeptCommand } from '../flow/device-store';
import type { LastAct } from '../flow/last-act';
import { Glyph, type GlyphName } from '../ui/glyph';

/** The slip on the phone: one's own newest lines, with an undo while it is possible. */
export function FloorTape({
  entries,
  onUndo,
  last,
  lines = 2,
  unsent = [],
  offline = false,
}: {
  entries: readonly Dto['TapeEntryDto'][];
  onUndo: () => void;
  /** What an undo would take back; null where nothing can be. */
  last: LastAct | null;
  lines?: number;
  /** What this task's scans led to and the server has not answered yet. */
  unsent?: readonly KeptCommand[];
  offline?: boolean;
}) {
  const kept = offline ? unsent : [];
  // An act whose line has not come yet has one of its own, so that nobody undoes the one beneath it instead.
  const isOnTape = last !== null && entries.some((e) => e.id === last.activityId);
  const coming = kept.length === 0 && last !== null && !isOnTape ? last : null;
  return (
    <ol className={`f-tape ${kept.length > 0 ? 'kept' : ''}`} aria-label="Tape" style={{ marginTop: 'auto' }}>
      {kept.slice(-1).map((c) => (
        <li key={c.id}>
          <Glyph name="empty" />
          <span>
            <b>{c.title}</b>
            <br />
            {kept.length} kept here, on the way to the server
          </span>
          {!c.tried && (
            <button type="button" onClick={onUndo} className="f-undo">
              Undo
            </button>
          )}
        </li>
      ))}
      {coming && (
        <li>
          <Glyph name="empty" />
          <span>
            <b>{coming.title}</b>
            <br />
            {coming.detail}
          </span>
          <button type="button" onClick={onUndo} className="f-undo">
            Undo
          </button>
        </li>
      )}
      {entries.slice(0, kept.length > 0 || coming ? lines - 1 : lines).map((e) => (
        <li key={e.id}>
          <Glyph name={e.glyph as GlyphName} />
          <span>
            <b style={e.undone ? { textDecoration: 'line-through' } : undefined}>{e.title}</b>
            <br />
            {e.detail}
          </span>
          {kept.length === 0 && e.undoable && e.id === last?.activityId && (
            <button type="button" onClick={onUndo} className="f-undo">
              Undo
            </button>
          )}
        </li>
      ))}
      {entries.length === 0 && kept.length === 0 && !coming && (
        <li>
          <Glyph name="empty" />
          <span>Nothing scanned yet</span>
        </li>
      )}
    </ol>
  );
}
