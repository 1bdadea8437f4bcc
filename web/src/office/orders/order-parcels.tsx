import type { Dto } from '../../api/client';
import { TextAnchor } from '../../ui/button';
import { BlockHead } from '../../ui/page';
import { weightText } from '../../ui/units';

const STANDS: Readonly<Record<string, string>> = {
  open: 'being packed',
  'label-asked': 'label asked for',
  labelled: 'waits for its van',
  gone: 'gone',
  void: 'taken apart, its label is void',
};

/** The parcels of an order, and where each stands. */
export function OrderParcels({ parcels }: { parcels: Dto['OrderDto']['parcels'] }) {
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
          <span className="mid">{p.weightG ? weightText(p.weightG) : ''}</span>
          <span className="mid ml-auto">{STANDS[p.state] ?? p.state}</span>
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
