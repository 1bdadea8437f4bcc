import { useState } from 'react';
import { api, ask, type Dto, ProblemError } from '../api/client';
import { useAct } from '../api/use-act';
import { ProblemNote } from '../ui/states';
import { Rates } from './rates';
import { plural } from '../ui/format';
import { Button, TextAnchor, TextButton } from '../ui/button';

const WORDS: Readonly<Record<string, string>> = {
  open: 'Still open.',
  'label-asked': 'The label is on its way. It prints by itself; go on with the next tote.',
  labelled: 'Label printed. Put the parcel into its lane.',
  gone: 'Handed over.',
};

/** What became of the parcels of an order that is packed. */
export function ClosedOrder({
  order,
  parcels,
  onTheWay,
  onOpen,
}: {
  order: string;
  parcels: Dto['BenchParcelDto'][];
  onTheWay: number;
  onOpen: (number: number) => void;
}) {
  return (
    <div className="py-2">
      {parcels.map((p) => (
        <section key={p.code} className="mb-4">
          <h2 style={{ fontSize: 24, lineHeight: '30px' }}>Parcel {p.code}</h2>
          <p className="text-[18px] leading-[26px] mt-2">{WORDS[p.state] ?? 'This order is not at the packing table.'}</p>
          {p.problem && <OtherWay order={order} parcel={p} problem={p.problem} />}
          {p.tracking && (
            <p className="text-[18px] mt-2">
              {p.carrier}, <span className="code">{p.tracking}</span>{' '}
              <TextAnchor href={`/api/dispatch/parcels/${p.code}/label`} target="_blank" rel="noreferrer" data-print>
                See the label
              </TextAnchor>
            </p>
          )}
          {(p.state === 'labelled' || p.state === 'label-asked') && (
            <TextButton type="button" onClick={() => onOpen(p.number)}>
              Open it again
            </TextButton>
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

/** A label that the carrier does not give: why, and another service to send the parcel by. */
function OtherWay({ order, parcel, problem }: { order: string; parcel: Dto['BenchParcelDto']; problem: string }) {
  const [choosing, setChoosing] = useState(false);
  const send = useAct({
    act: (service: { carrier: string; code: string } | null, once) =>
      ask(api.POST('/api/bench/parcels/{code}/service', { params: { path: { code: parcel.code } }, body: { service }, headers: once })),
    onDone: () => setChoosing(false),
  });
  return (
    <div className="mt-2">
      <ProblemNote problem={new ProblemError(503, 'carrier', problem)} />
      {choosing && parcel.weightG !== null ? (
        <Rates
          order={order}
          weightG={parcel.weightG}
          choice={{ rate: null }}
          onChoose={(rate) => send.mutate(rate === null || rate === 'cheapest' ? null : { carrier: rate.carrier, code: rate.service })}
        />
      ) : (
        <Button type="button" disabled={send.isPending} onClick={() => setChoosing(true)}>
          Send it another way
        </Button>
      )}
      <ProblemNote problem={send.error} />
    </div>
  );
}
