import { PASSED_OVER, type PickStop } from '@vectrum/core/scan';
import { PhoneItem, PhoneLink, PhoneList, Say } from '../../ui/phone/parts';

/** Lots that lie in the bin beside the one that is due, offered to whoever reads another number on the goods. */
export function OtherLots({ stop, onLot }: { stop: PickStop; onLot: (lot: string) => void }) {
  const others = stop.others ?? [];
  if (others.length === 0) return null;
  return (
    <Say className="text-[17px]">
      Here too:{' '}
      {others.slice(0, 3).map((o) => (
        <span key={o.lotId}>
          <PhoneLink onClick={() => onLot(o.lot)}>{o.lot}</PhoneLink>{' '}
        </span>
      ))}
    </Say>
  );
}

/** Why the lot that is due is passed over. */
export function WhyOver({ onReason }: { onReason: (reason: string) => void }) {
  return (
    <PhoneList aria-label="Reasons">
      {PASSED_OVER.map((reason) => (
        <PhoneItem key={reason}>
          <button type="button" onClick={() => onReason(reason)}>
            <b className="first-letter:uppercase">{reason}</b>
          </button>
        </PhoneItem>
      ))}
    </PhoneList>
  );
}
