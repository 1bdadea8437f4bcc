import { useMutation, useQueryClient } from '@tanstack/react-query';
import { spell } from '@vectrum/core/quantity';
import { shortLines, type Codebook, type ReceiveState, type ReceiveTask } from '@vectrum/core/scan';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ask, ProblemError } from '../../api/client';
import { ProblemNote } from '../../ui/states';

/** Closing an arrival: what is short, and the number on the supplier's paper. */
export function ClosePanel({ task, state, book, onBack }: { task: ReceiveTask; state: ReceiveState; book: Codebook; onBack: () => void }) {
  const [paper, setPaper] = useState('');
  const navigate = useNavigate();
  const client = useQueryClient();
  const close = useMutation({
    mutationFn: () => ask(api.POST('/api/floor/receive/{code}/close', { params: { path: { code: task.document } }, body: { paper } })),
    onSuccess: async () => {
      await client.invalidateQueries();
      void navigate('/floor/receive');
    },
  });
  const short = shortLines(task, state);
  const fault = close.error instanceof ProblemError ? close.error.fields['paper'] : undefined;
  return (
    <>
      <h1 className="f-ask ask">{short.length === 0 ? 'All that was due is here' : 'This is short'}</h1>
      <div className="f-body mt-3">
        <ul className="f-list">
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
        </ul>
        <label className="block px-[18px] mt-3">
          <span className="text-[17px]">Number on the supplier’s paper</span>
          <input
            className="code w-full h-[64px] border-2 border-rule-firm bg-sheet px-3 text-[22px]"
            value={paper}
            maxLength={60}
            autoComplete="off"
            onChange={(e) => setPaper(e.target.value)}
          />
          {fault && <span className="stamped text-[17px]">{fault}</span>}
        </label>
        {!fault && <ProblemNote problem={close.error} />}
      </div>
      <div className="f-keys" style={{ marginTop: 12, gridAutoColumns: 'auto', gridTemplateColumns: '104px 1fr' }}>
        <button type="button" className="f-key" onClick={onBack}>
          Back
        </button>
        <button type="button" className="f-key next" disabled={close.isPending} onClick={() => close.mutate()}>
          {short.length === 0 ? 'Close the arrival' : 'Close it, the rest is short'}
        </button>
      </div>
    </>
  );
}
