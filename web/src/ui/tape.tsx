import { useAct } from '../api/use-act';
import { api, ask, type Dto } from '../api/client';
import { useTape } from '../api/queries';
import { clock, clockSeconds, whole } from './format';
import { Glyph, type GlyphName } from './glyph';
import { PictureOf } from './picture-of';
import { useSingleKeys } from './single-keys';
import { TextButton } from './button';

type Entry = Dto['TapeEntryDto'];

/** Takes an act back; the tape gets an opposite line. */
export function useUndo() {
  return useAct({ act: (id: number, once) => ask(api.POST('/api/tape/{id}/undo', { params: { path: { id } }, headers: once })) });
}

const firstName = (who: string) => who.split(' ')[0] ?? who;

function Undo({ entry }: { entry: Entry }) {
  const undo = useUndo();
  if (entry.undone) return <span className="soft">undone</span>;
  if (!entry.undoable) return null;
  if (undo.error) return <span className="stamped">{undo.error.message}</span>;
  return (
    <TextButton type="button" onClick={() => undo.mutate(entry.id)} disabled={undo.isPending}>
      undo
    </TextButton>
  );
}

/** The standing tape: newest first; of the whole house, or of one stage. */
export function TapeColumn({ stage }: { stage?: 'picking' }) {
  const tape = useTape(60, stage ? { stage } : {});
  return (
    <aside className="tapecol" aria-label="Tape">
      <h2>
        Tape <span className="note">{whole(tape.data?.scansToday ?? 0)} scans today</span>
      </h2>
      <div className="tape">
        <ol>
          {tape.data?.entries.map((e) => (
            <li key={e.id}>
              <Glyph name={e.glyph as GlyphName} />
              <span className="t">
                <span>{clockSeconds(e.at)}</span>
                <span>{firstName(e.who)}</span>
                <span style={{ marginLeft: 'auto' }}>
                  <Undo entry={e} />
                </span>
              </span>
              <b style={e.undone ? { textDecoration: 'line-through' } : undefined}>{e.title}</b>
              <div className="mid">
                {e.detail} {e.picture && <PictureOf act={e.picture} />}
              </div>
            </li>
          ))}
        </ol>
      </div>
    </aside>
  );
}

/** The tape in one line at the foot of a page. `U` undoes the newest act of one's own. */
export function TapeLine() {
  const tape = useTape(3);
  return (
    <footer className="tapeline" aria-label="Tape, newest first">
      <span>Tape</span>
      {tape.data?.entries.map((e) => (
        <span key={e.id}>
          <Glyph name={e.glyph as GlyphName} />
          <span>
            {clock(e.at)} {firstName(e.who)}: {e.title}
          </span>
          <Undo entry={e} />
        </span>
      ))}
      <span className="end">{whole(tape.data?.scansToday ?? 0)} scans today</span>
    </footer>
  );
}

/** `U` takes back the newest of one's own acts that can be. */
export function useUndoKey(): void {
  const mine = useTape(10, { mine: true });
  const { mutate } = useUndo();
  const newest = mine.data?.entries.find((e) => e.undoable);
  useSingleKeys({ u: () => newest && mutate(newest.id) });
}
