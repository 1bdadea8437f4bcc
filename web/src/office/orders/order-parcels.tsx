import { Link } from 'react-router';
import type { Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { TextAnchor } from '../../ui/button';
import { BlockHead } from '../../ui/page';
import { when } from '../../ui/format';
import { weightText } from '../../ui/units';
import { isTrouble, travelWord } from './claim-words';

const STANDS: Readonly<Record<string, string>> = {
  open: 'being packed',
  'label-asked': 'label asked for',
  labelled: 'waits for its van',
  gone: 'gone',
  void: 'taken apart, its label is void',
};

/** The parcels of an order, and where each stands. */
export function OrderParcels({ parcels }: { parcels: Dto['OrderDto']['parcels'] }) {
  const isDesk = useMe().data?.rights.includes('order-desk') ?? false;
  if (parcels.length === 0) return null;
  return (
    <>
      <BlockHead className="mt-4">
        <h2>Parcels</h2>
      </BlockHead>
      {parcels.map((p) => (
        <div key={p.code} className="flex gap-4 items-baseline border-b border-rule py-1">
          <span className="code">{p.code}</span>
          <span>{p.carrier}</span>
          <span className="code">{p.tracking}</span>
          <span className="mid">
            {p.weightG ? weightText(p.weightG) : ''}
            {p.weightWhy && `, ${p.weightWhy}`}
          </span>
          {p.booking && <span className="mid">booking {p.booking}</span>}
          <span className={p.travel && isTrouble(p.travel) ? 'stamped ml-auto' : 'mid ml-auto'}>
            {p.travel ? `${travelWord(p.travel)}${p.travelAt ? `, ${when(p.travelAt)}` : ''}` : (STANDS[p.state] ?? p.state)}
          </span>
          {p.hasPicture && (
            <TextAnchor href={`/api/bench/parcels/${p.code}/picture`} target="_blank" rel="noreferrer">
              Picture
            </TextAnchor>
          )}
          {p.state === 'gone' && isDesk && <Link to={`/orders/claims/new?parcel=${p.code}`}>Claim</Link>}
          {p.tracking && p.state !== 'void' && (
            <TextAnchor href={`/api/dispatch/parcels/${p.code}/label`} target="_blank" rel="noreferrer">
              Label
            </TextAnchor>
          )}
        </div>
      ))}
    </>
  );
}
