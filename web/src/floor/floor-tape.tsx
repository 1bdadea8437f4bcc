import type { Dto } from '../api/client';
import { Glyph, type GlyphName } from '../ui/glyph';

/** The slip on the phone: one's own newest lines, with an undo while it is possible. */
export function FloorTape({
  entries,
  onUndo,
  lines = 2,
  waiting = 0,
}: {
  entries: Dto['TapeEntryDto'][];
  onUndo: () => void;
  lines?: number;
  waiting?: number;
}) {
  const newest = entries.find((e) => e.undoable);
  return (
    <ol className="f-tape" aria-label="Tape" style={{ marginTop: 'auto' }}>
      {waiting > 0 && (
        <li>
          <Glyph name="clock" />
          <span>{waiting} on the way to the server</span>
        </li>
      )}
      {entries.slice(0, waiting > 0 ? lines - 1 : lines).map((e) => (
        <li key={e.id}>
          <Glyph name={e.glyph as GlyphName} />
          <span>
            <b style={e.undone ? { textDecoration: 'line-through' } : undefined}>{e.title}</b>
            <br />
            {e.detail}
          </span>
          {e === newest && (
            <button
              type="button"
              onClick={onUndo}
              className="border-2 border-[#141e32] rounded-[4px] px-3 py-[7px] text-[16px] font-[680] self-center"
            >
              Undo
            </button>
          )}
        </li>
      ))}
      {entries.length === 0 && waiting === 0 && (
        <li>
          <Glyph name="empty" />
          <span>Nothing scanned yet</span>
        </li>
      )}
    </ol>
  );
}
