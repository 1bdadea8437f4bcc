import { classes } from './classes';
import { clock, day } from './format';
import { Glyph } from './glyph';

export interface RailParcel {
  code: string;
  customer: string;
  labelled: boolean;
  held: string | null;
  loaded: boolean;
  missed: boolean;
}

function wordsOf(p: RailParcel): string {
  if (p.loaded) return 'on the van';
  if (p.held !== null) return `held: ${p.held}`;
  if (!p.labelled) return 'no label yet';
  return p.missed ? 'missed its van' : 'waits';
}

/**
 * One van's part of a lane: a rail that ends at its door, each parcel a cell on it, filled when it is loaded. `far`: another van leaves
 * before this one.
 */
export function VanRail({ at, parcels, far = false }: { at: string | null; parcels: readonly RailParcel[]; far?: boolean }) {
  const isToday = at !== null && new Date(at).toDateString() === new Date().toDateString();
  return (
    <div className={far ? 'van-rail far' : 'van-rail'}>
      <ol aria-label={at ? `Parcels for the van at ${clock(at)}` : 'Parcels for the van'}>
        {parcels.map((p) => (
          <li
            key={p.code}
            className={classes(p.loaded && 'loaded', p.missed && 'missed', !p.labelled && 'unlabelled', p.held !== null && 'stays')}
            title={`${p.code}, ${p.customer}: ${wordsOf(p)}`}
            aria-label={`${p.code}, ${wordsOf(p)}`}
          >
            {p.held !== null ? <Glyph name="held" /> : !p.labelled ? <Glyph name="quarter" /> : null}
          </li>
        ))}
        {parcels.length === 0 && <li className="none">No parcels wait for this van</li>}
      </ol>
      <div className="door-end">
        <b>{at ? clock(at) : 'open'}</b>
        <span>{at ? (isToday ? 'van leaves' : day(at)) : 'no departure'}</span>
      </div>
    </div>
  );
}
