import { useEffect, useRef, useState } from 'react';
import { api, ask, type Dto, ProblemError } from '../api/client';
import { useAct } from '../api/use-act';
import { ProblemNote } from '../ui/states';
import { Rates } from './rates';
import { plural } from '../ui/format';
import { Button, TextAnchor, TextButton } from '../ui/button';

const READ_AGAIN_MS = 1_500;
const WORDS: Readonly<Record<string, string>> = {
  open: 'Still open.',
  'label-asked': 'The label is on its way. It prints by itself; go on with the next tote.',
  gone: 'Handed over.',
};

/** What became of the parcels of an order that is packed. */
export function ClosedOrder({
  order,
  parcels,
  onTheWay,
  onOpen,
  onWait,
}: {
  order: string;
  parcels: Dto['BenchParcelDto'][];
  onTheWay: number;
  onOpen: (number: number) => void;
  /** Reads again how far labels have come on paper: printers tell nobody. */
  onWait: () => void;
}) {
  const waits = parcels.some((p) => p.state === 'labelled' && p.print !== 'done');
  const wait = useRef(onWait);
  useEffect(() => {
    wait.current = onWait;
  });
  useEffect(() => {
    if (!waits) return;
    const timer = window.setInterval(() => wait.current(), READ_AGAIN_MS);
    return () => window.clearInterval(timer);
  }, [waits]);
  return (
    <div className="py-2">
      {parcels.map((p) => (
        <section key={p.code} className="mb-4">
          <h2 style={{ fontSize: 24, lineHeight: '30px' }}>Parcel {p.code}</h2>
          {p.state !== 'labelled' && (
            <p className="text-[18px] leading-[26px] mt-2">{WORDS[p.state] ?? 'This order is not at the packing table.'}</p>
          )}
          {p.state === 'labelled' && <Printed parcel={p} />}
          {p.problem && <OtherWay order={order} parcel={p} problem={p.problem} />}
          {p.tracking && (
            <p className="text-[18px] mt-2">
              {p.carrier}, <span className="code">{p.tracking}</span>{' '}
              <TextAnchor href={`/api/dispatch/parcels/${p.code}/label`} target="_blank" rel="noreferrer" data-print>
                See the label
              </TextAnchor>{' '}
              <TextAnchor href={`/api/bench/parcels/${p.code}/packing-list`} target="_blank" rel="noreferrer">
                Packing list
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

/** Whether the label is on paper, and what to do where it is not. */
function Printed({ parcel }: { parcel: Dto['BenchParcelDto'] }) {
  const again = useAct({
    act: (_: void, once) => ask(api.POST('/api/bench/parcels/{code}/print', { params: { path: { code: parcel.code } }, headers: once })),
  });
  if (parcel.print === 'done')
    return (
      <p className="text-[18px] leading-[26px] mt-2">
        Label printed. Put the parcel into its lane.{' '}
        <TextButton type="button" disabled={again.isPending} onClick={() => again.mutate()}>
          Print it again
        </TextButton>
      </p>
    );
  return (
    <div className="mt-2">
      {parcel.print === 'failing' ? (
        <ProblemNote
          problem={
            new ProblemError(
              503,
              'away',
              `The label is not on paper: ${parcel.printProblem ?? ''}. See to the printer, where it is tried again by itself, or print it from “See the label”`,
            )
          }
          onRetry={() => again.mutate()}
        />
      ) : (
        <p className="text-[18px] leading-[26px]">The label is there and goes to the printer.</p>
      )}
      <ProblemNote problem={again.error} />
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
          box={parcel.carton ?? ''}
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
