import { useEffect, useRef } from 'react';
import type { Dto } from '../../api/client';
import { Say } from '../../ui/phone/parts';

const READ_AGAIN_MS = 1_500;

function words(p: Dto['BenchParcelDto']): string {
  if (p.problem) return `No label yet: ${p.problem}. It is asked for until it comes`;
  if (p.state === 'label-asked') return 'Its label is on its way';
  if (p.state === 'gone') return 'Handed over';
  if (p.printProblem) return `The label is not on paper: ${p.printProblem}`;
  return p.print === 'done' ? 'Label printed. Put it on, and the parcel into its lane' : 'Its label is being printed';
}

/** What became of the parcels of an order that was packed here. */
export function Labels({ parcels, unsent, onWait }: { parcels: readonly Dto['BenchParcelDto'][]; unsent: number; onWait: () => void }) {
  const waits = parcels.some((p) => p.state !== 'gone' && p.print !== 'done');
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
    <>
      {parcels.map((p) => (
        <Say key={p.code} className="text-[18px]">
          <b className="code">{p.code}</b>
          {p.tracking && (
            <>
              , {p.carrier} <span className="code">{p.tracking}</span>
            </>
          )}
          <span className={p.problem || p.printProblem ? 'block stamped' : 'block'}>{words(p)}</span>
        </Say>
      ))}
      {unsent > 0 && <Say className="text-[17px]">{unsent} kept on this phone until the network is back</Say>}
    </>
  );
}
