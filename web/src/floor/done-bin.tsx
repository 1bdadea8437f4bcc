import { Glyph } from '../ui/glyph';
import { Route, RouteNode } from '../ui/phone/parts';

/** The bin that somebody stands at: it has been scanned, and steps back behind what comes next. */
export function DoneBin({ code, says }: { code: string; says: string }) {
  return (
    <Route style={{ marginTop: 0 }}>
      <RouteNode>
        <i />
        <Glyph name="full" />
      </RouteNode>
      <div className="donebin">
        <span className="code">{code}</span>
        <span style={{ fontWeight: 460, fontSize: 18, color: 'var(--color-ink-2)' }}>{says}</span>
      </div>
    </Route>
  );
}
