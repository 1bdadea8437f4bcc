import type { Dto } from '../api/client';
import type { KeptCommand } from '../flow/device-store';
import { Glyph, type GlyphName } from '../ui/glyph';

/** The slip on the phone: one's own newest lines, with an undo while it is possible. */
export function FloorTape({
  entries,
  onUndo,
  lines = 2,
  unsent = [],
  offline = false,
}: {
  entries: Dto['TapeEntryDto'][];
  onUndo: () => void;
  lines?: number;
  /** What this task's scans led to and the server has not answered yet. */
  unsent?: readonly KeptCommand[];
  offline?: boolean;
}) {
  const kept = offline ? unsent : [];
  const newest = kept.length > 0 ? undefined : entries.find((e) => e.undoable);
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
      {entries.slice(0, kept.length > 0 ? lines - 1 : lines).map((e) => (
        <li key={e.id}>
          <Glyph name={e.glyph as GlyphName} />
          <span>
            <b style={e.undone ? { textDecoration: 'line-through' } : undefined}>{e.title}</b>
            <br />
            {e.detail}
          </span>
          {e === newest && (
            <button type="button" onClick={onUndo} className="f-undo">
              Undo
            </button>
          )}
        </li>
      ))}
      {entries.length === 0 && kept.length === 0 && (
        <li>
          <Glyph name="empty" />
          <span>Nothing scanned yet</span>
        </li>
      )}
    </ol>
  );
}
