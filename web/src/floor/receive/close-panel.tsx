import { useQueryClient } from '@tanstack/react-query';
import { spell } from '@vectrum/core/quantity';
import { shortLines, type Codebook, type ReceiveInput, type ReceiveState, type ReceiveTask } from '@vectrum/core/scan';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { ProblemError } from '../../api/client';
import { queue, useQueue } from '../../flow/queue';
import type { FlowInput } from '../../flow/use-flow';
import { ProblemNote } from '../../ui/states';
import { Ask, PhoneBody, PhoneList, Keys, Key } from '../../ui/phone/parts';

/** Closing an arrival: what is short, and the number on the supplier's paper. */
export function ClosePanel({
  task,
  state,
  book,
  input,
  onBack,
}: {
  task: ReceiveTask;
  state: ReceiveState;
  book: Codebook;
  input: (given: FlowInput<ReceiveInput>) => void;
  onBack: () => void;
}) {
  const [paper, setPaper] = useState('');
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [sent, setSent] = useState<string | null>(null);
  const navigate = useNavigate();
  const client = useQueryClient();
  const line = useQueue();
  // What was pressed is on its way as the newest of this task's commands.
  const closing = line.unsent.find((c) => c.command.kind === 'close-arrival' && c.command.document === task.document);
  const press = () => {
    setProblem(null);
    setSent(paper);
    input({ kind: 'close', paper });
  };
  const id = closing?.id;
  useEffect(() => {
    if (id === undefined) return;
    void queue.outcomeOf(id).then((outcome) => {
      if ('problem' in outcome) return setProblem(outcome.problem);
      void client.invalidateQueries();
      void navigate('/floor/receive');
    });
  }, [id, client, navigate]);
  const waits = closing !== undefined && sent !== null;
  const short = shortLines(task, state);
  const fault = problem?.fields['paper'];
  return (
    <>
      <Ask>{short.length === 0 ? 'All that was due is here' : 'This is short'}</Ask>
      <PhoneBody className="mt-3">
        <PhoneList>
          {short.map(({ line, missing }) => {
            const item = book.items[line.itemId];
            return (
              <li key={line.lineId} className="px-[18px] py-2">
                <b>{item?.name}</b>
                <span>
                  {item && spell(missing, item.packs)} of <span className="code">{line.order}</span>
                </span>
              </li>
            );
          })}
        </PhoneList>
        <label className="block px-[18px] mt-3">
          <span className="text-[17px]">Number on the supplier’s paper</span>
          <input
            className="code w-full h-[64px] border-2 border-rule-firm bg-sheet px-3 text-[22px]"
            data-scan
            value={paper}
            maxLength={60}
            autoComplete="off"
            onChange={(e) => setPaper(e.target.value)}
          />
          {fault && <span className="stamped text-[17px]">{fault}</span>}
        </label>
        {!fault && <ProblemNote problem={problem} />}
        {waits && line.offline && (
          <p role="status" className="px-[18px] mt-2 text-[17px]">
            No network. It is closed on this phone, and sent when the network is back.{' '}
            <Link to="/floor/receive" className="underline">
              Go on
            </Link>
          </p>
        )}
      </PhoneBody>
      <Keys style={{ marginTop: 12, gridAutoColumns: 'auto', gridTemplateColumns: '104px 1fr' }}>
        <Key type="button" onClick={onBack}>
          Back
        </Key>
        <Key type="button" next disabled={waits} onClick={press}>
          {short.length === 0 ? 'Close the arrival' : 'Close it, the rest is short'}
        </Key>
      </Keys>
    </>
  );
}
