import type { Dto } from '../api/client';
import type { LastAct } from '../flow/last-act';
import type { KeptCommand } from '../flow/device-store';
import { Glyph, type GlyphName } from '../ui/glyph';

/** The table's own newest lines; what is not sent yet first, with a hollow glyph. */
export function BenchTape({
  entries,
  onUndo,
  last,
  unsent,
}: {
  entries: readonly Dto['TapeEntryDto'][];
  onUndo: () => void;
  /** What an undo would take back; null where nothing can be. */
  last: LastAct | null;
  unsent: readonly KeptCommand[];
}) {
  const newest = unsent.length > 0 ? undefined : entries.find((e) => e.undoable && e.id === last?.activityId);
  return (
    <div className="btape">
      <div className={`strip ${unsent.length > 0 ? 'kept' : ''}`} aria-label="Tape">
        {unsent.slice(-1).map((c) => (
          <div className="e" key={c.id}>
            <Glyph name="empty" />
            <span>
              <b>{c.title}</b>
            </span>
            <span className="soft" style={{ gridColumn: 2 }}>
              {unsent.length} kept here, on the way to the server
            </span>
            {!c.tried && (
              <button type="button" onClick={onUndo}>
                Undo
              </button>
            )}
          </div>
        ))}
        {entries.slice(0, unsent.length > 0 ? 2 : 3).map((e) => (
          <div className="e" key={e.id}>
            <Glyph name={e.glyph as GlyphName} />
            <span>
              <b>{e.title}</b>
            </span>
            <span className="soft" style={{ gridColumn: 2 }}>
              {e.detail}
            </span>
            {e === newest && (
              <button type="button" onClick={onUndo}>
                Undo
              </button>
            )}
          </div>
        ))}
      </div>
    </div>
  );
}
