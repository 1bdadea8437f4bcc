import { useState } from 'react';
import type { Dto } from '../../api/client';
import { Button, ButtonAnchor } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { plural } from '../../ui/format';

type Round = Dto['RoundRowDto'];
const PAPERS = [
  ['lists', 'Lists to pick from, with barcodes and room for what was taken'],
  ['slips', 'Packing lists, one an order'],
  ['labels', 'Labels for the totes, fourteen on a sheet'],
] as const;

/** What of many rounds is printed, in one go. */
export function PrintRounds({ rounds, onClose }: { rounds: readonly Round[]; onClose: () => void }) {
  const waiting = rounds.filter((r) => r.state === 'waiting');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(() => new Set(waiting.map((r) => r.code)));
  const [papers, setPapers] = useState<ReadonlySet<string>>(new Set(['lists']));
  const listed = rounds.filter((r) => r.state === 'waiting' || r.state === 'picking');
  const flip = (set: ReadonlySet<string>, word: string) =>
    set.has(word) ? new Set([...set].filter((w) => w !== word)) : new Set([...set, word]);
  const orders = listed.filter((r) => chosen.has(r.code)).reduce((n, r) => n + r.orders.length, 0);
  const href = `/api/rounds-papers?rounds=${listed
    .map((r) => r.code)
    .filter((c) => chosen.has(c))
    .join(',')}&papers=${PAPERS.map(([kind]) => kind)
    .filter((kind) => papers.has(kind))
    .join(',')}`;
  return (
    <Dialog
      title="Print rounds"
      about={listed.length === 0 ? 'No round waits. Send orders to picking from Release.' : 'All of it comes as one print.'}
      onClose={onClose}
    >
      {listed.length > 0 && (
        <>
          <fieldset className="grid gap-1 mt-3">
            <legend className="mid">What</legend>
            {PAPERS.map(([kind, says]) => (
              <label key={kind} className="flex gap-2 items-center min-h-7">
                <input type="checkbox" checked={papers.has(kind)} onChange={() => setPapers(flip(papers, kind))} />
                {says}
              </label>
            ))}
          </fieldset>
          <fieldset className="grid gap-1 mt-3 max-h-[32vh] overflow-y-auto">
            <legend className="mid">Of which rounds</legend>
            {listed.map((r) => (
              <label key={r.code} className="flex gap-2 items-center min-h-7">
                <input type="checkbox" checked={chosen.has(r.code)} onChange={() => setChosen(flip(chosen, r.code))} />
                <span className="code">{r.code}</span>
                <span className="min-w-0 overflow-hidden text-ellipsis whitespace-nowrap">
                  {r.orders.length === 1 ? r.orders[0]?.customer : plural(r.orders.length, 'order', 'orders')}
                  {r.state === 'picking' && ', under way'}
                </span>
              </label>
            ))}
          </fieldset>
        </>
      )}
      <div className="flex gap-2 mt-4">
        {orders > 0 && papers.size > 0 && (
          <ButtonAnchor next href={href} target="_blank" rel="noreferrer" onClick={onClose}>
            Print for {plural(orders, 'order', 'orders')}
          </ButtonAnchor>
        )}
        <Button type="button" onClick={onClose}>
          Not now
        </Button>
      </div>
    </Dialog>
  );
}
