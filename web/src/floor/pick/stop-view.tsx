import { inPacks, lotWords, packName, spell } from '@vectrum/core/quantity';
import type { Codebook, PickStop } from '@vectrum/core/scan';
import { whole } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { OfEach, PhoneLink, Route, RouteNode, TaskCard, ToTake } from '../../ui/phone/parts';
import { Picture } from '../../ui/picture';
import { BinLabel } from '../bin-label';
import { DoneBin } from '../done-bin';
import type { Here } from './asked';

/** The stop at hand: where to go, what to take there and how many, which tote it goes into. */
export function StopView({
  book,
  stop,
  here,
  wanted,
  tote,
  count,
  slim,
  onFull,
}: {
  book: Codebook;
  stop: PickStop;
  here: Here;
  wanted: number;
  /** The code of the tote that it goes into; null until there is one. */
  tote: string | null;
  /** How many orders the round has. */
  count: number;
  /** Room is wanted beneath for the pad. */
  slim: boolean;
  onFull: () => void;
}) {
  const { atBin, inHand, order, toTie, wantsTote } = here;
  const item = book.items[stop.itemId];
  const counts = item ? inPacks(wanted, item.packs) : [];
  const isSeen = atBin || inHand > 0;
  return (
    <>
      {toTie && count > 1 ? (
        <BinLabel code="Empty tote" way={`for ${toTie.code}, ${toTie.customer}`} />
      ) : wantsTote && tote !== null ? (
        <BinLabel code={tote} way={order ? `${order.code}, ${order.customer}` : ''} />
      ) : isSeen ? (
        <DoneBin code={stop.placeCode} says={atBin ? 'right bin' : 'goods first'} />
      ) : (
        <BinLabel
          code={stop.placeCode}
          way={toTie ? 'take an empty tote with you' : stop.metres > 0 ? `${stop.metres} m on` : 'right here'}
        />
      )}
      <Route style={isSeen ? { marginTop: 0 } : undefined}>
        <RouteNode>
          <i />
          <Glyph name={inHand > 0 ? 'half' : 'empty'} />
        </RouteNode>
        <TaskCard here={atBin}>
          <Picture name={item?.picture} size={slim ? 56 : 96} />
          <div>
            <h2>{item?.name}</h2>
            <ToTake several={slim || counts.length > 1}>
              {counts.map(({ pack, count }) => (
                <div key={pack.id} className="flex items-end gap-[8px]">
                  <b>{whole(count)}</b>
                  <span>{packName(pack, count)}</span>
                </div>
              ))}
            </ToTake>
            <OfEach>
              {[lotWords(item, here.lot), inHand > 0 && item && `${spell(inHand, item.packs)} in hand`].filter(Boolean).join(', ')}
            </OfEach>
          </div>
        </TaskCard>
        {!slim && (
          <RouteNode last>
            <i />
            <Glyph name={tote ? 'full' : 'empty'} />
          </RouteNode>
        )}
        <div className="drop" hidden={slim}>
          <p>
            {tote ? `Into tote ${tote}` : 'Into an empty tote'}
            <span>
              {order?.code}, {order?.customer}
            </span>
            {order?.note && <span>{order.note}</span>}
          </p>
          {tote !== null && !toTie && <PhoneLink onClick={onFull}>It is full</PhoneLink>}
        </div>
      </Route>
    </>
  );
}
