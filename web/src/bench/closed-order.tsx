import type { Dto } from '../api/client';
import { plural } from '../ui/format';
import { TextAnchor } from '../ui/button';

const WORDS: Readonly<Record<string, string>> = {
  open: 'Still open.',
  'label-asked': 'The label is on its way. It prints by itself; go on with the next tote.',
  labelled: 'Label printed. Put the parcel into its lane.',
  gone: 'Handed over.',
};

/** What became of the parcels of an order that is packed. */
export function ClosedOrder({ parcels, onTheWay }: { parcels: Dto['BenchParcelDto'][]; onTheWay: number }) {
  return (
    <div className="py-2">
      {parcels.map((p) => (
        <section key={p.code} className="mb-4">
          <h2 style={{ fontSize: 24, lineHeight: '30px' }}>Parcel {p.code}</h2>
          <p className="text-[18px] leading-[26px] mt-2">{WORDS[p.state] ?? 'This order is not at the packing table.'}</p>
          {p.tracking && (
            <p className="text-[18px] mt-2">
              {p.carrier}, <span className="code">{p.tracking}</span>{' '}
              <TextAnchor href={`/api/dispatch/parcels/${p.code}/label`} target="_blank" rel="noreferrer" data-print>
                See the label
              </TextAnchor>
            </p>
          )}
        </section>
      ))}
      {onTheWay > 0 && (
        <p className="text-[18px] leading-[26px]">
          {plural(onTheWay, 'act is', 'acts are')} kept here until the network is back. The label comes then; go on with the next tote.
        </p>
      )}
    </div>
  );
}
