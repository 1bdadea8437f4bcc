import { useAct } from '../../api/use-act';
import { micro, moneyText } from '@vectrum/core/money';
import { countOf } from '@vectrum/core/quantity';
import { useState } from 'react';
import { api, ask, ifMatch, type Dto } from '../../api/client';
import { day } from '../../ui/format';
import { ProblemNote } from '../../ui/states';
import { Button } from '../../ui/button';
import { Input } from '../../ui/input';

type Order = Dto['PurchaseOrderDto'];
type Line = Dto['PurchaseOrderLineDto'];

/** What the supplier says to a line, beside what was ordered: only what differs. */
export function answerWords(line: Line, currency: string): string {
  const a = line.answer;
  if (!a || a.says === 'accepted') return '';
  if (a.says === 'refused') return `refused${a.note ? `: ${a.note}` : ''}`;
  const parts = [
    a.packs === null ? '' : countOf(a.packs, { name: line.pack, plural: line.packPlural }),
    a.price ? `at ${moneyText(micro(a.price), currency)}` : '',
    a.on ? `on ${day(a.on)}` : '',
  ];
  return `offers ${parts.filter(Boolean).join(', ')}${a.note ? ` (${a.note})` : ''}`;
}

const SAYS: Readonly<Record<string, string>> = {
  'to-settle': 'The supplier answers with changes, shown line by line',
  refused: 'The supplier refuses this order',
  queried: 'Asked again; what was offered still stands here',
};

/** An answer that waits for the buyer: take it, or ask for something else. */
export function OrderAnswer({ order }: { order: Order }) {
  const [note, setNote] = useState('');
  const settle = useAct({
    act: (says: 'accept' | 'query', once) =>
      ask(
        api.POST('/api/purchase-orders/{code}/answer', {
          params: { path: { code: order.code } },
          headers: { ...once, ...ifMatch(order.version) },
          body: { says, note },
        }),
      ),
  });
  const said = SAYS[order.answer];
  if (!said) return null;
  return (
    <section aria-label="Answer of the supplier" className="border-[1.5px] border-ink px-3 py-2 mt-4">
      <b>{said}</b>
      {order.answerNote && <span className="note block">“{order.answerNote}”</span>}
      <div className="flex gap-3 items-center mt-2">
        <Button type="button" disabled={settle.isPending} onClick={() => settle.mutate('accept')}>
          {order.answer === 'refused' ? 'Cancel the order then' : 'Take it so'}
        </Button>
        <Input
          className="flex-1"
          aria-label="What to ask for instead"
          placeholder="or say what you ask for instead"
          maxLength={300}
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
        <Button type="button" disabled={settle.isPending || note.trim() === ''} onClick={() => settle.mutate('query')}>
          Ask again by mail
        </Button>
      </div>
      <ProblemNote problem={settle.error} />
    </section>
  );
}
