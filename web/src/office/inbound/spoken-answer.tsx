import { useState } from 'react';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { useAct } from '../../api/use-act';
import { Button, TextButton } from '../../ui/button';
import { Input } from '../../ui/input';
import { ProblemNote } from '../../ui/states';
import { ChooseCell, LinesTable } from '../../ui/table';

type Order = Dto['PurchaseOrderDto'];
type Says = Dto['SpokenAnswerDto']['says'];

interface Said {
  packs: string;
  price: string;
  on: string;
  refused: boolean;
}
const AS_ORDERED: Said = { packs: '', price: '', on: '', refused: false };
const SAYS: readonly (readonly [Says, string])[] = [
  ['accepted', 'All as ordered'],
  ['changed', 'With changes'],
  ['refused', 'They refuse it'],
];

/** What was said of the lines, as the server takes it: only those that differ. */
export function spokenLines(said: Readonly<Record<number, Said>>): Dto['SpokenLineDto'][] {
  return Object.entries(said).flatMap(([line, l]): Dto['SpokenLineDto'][] => {
    if (l.refused) return [{ line: Number(line), says: 'refused' }];
    if (l.packs === '' && l.price === '' && l.on === '') return [];
    return [
      {
        line: Number(line),
        says: 'changed',
        packs: l.packs === '' ? null : Number(l.packs),
        price: l.price || null,
        promisedOn: l.on || null,
      },
    ];
  });
}

/** Writes down what the supplier said on the telephone; nobody is written to. */
export function SpokenAnswer({ order }: { order: Order }) {
  const [isOpen, setOpen] = useState(false);
  const [says, setSays] = useState<Says>('accepted');
  const [note, setNote] = useState('');
  const [day, setDay] = useState('');
  const [said, setSaid] = useState<Record<number, Said>>({});
  const keep = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/purchase-orders/{code}/spoken-answer', {
          params: { path: { code: order.code } },
          headers: { ...once, ...ifMatch(order.version) },
          body: {
            says,
            note,
            promisedOn: says === 'refused' ? null : day || null,
            lines: says === 'changed' ? spokenLines(said) : [],
          },
        }),
      ),
    onDone: () => setOpen(false),
  });
  if (order.state !== 'placed' && order.state !== 'part-received') return null;
  if (!isOpen)
    return (
      <p className="mt-3">
        <TextButton type="button" onClick={() => setOpen(true)}>
          Note what they said on the telephone
        </TextButton>
      </p>
    );
  const put = (line: number, next: Partial<Said>) => setSaid((was) => ({ ...was, [line]: { ...(was[line] ?? AS_ORDERED), ...next } }));
  const open = order.lines.filter((l) => l.received + l.closed < l.ordered);
  return (
    <section aria-label="What they said on the telephone" className="border-[1.5px] border-ink px-3 py-3 mt-4 grid gap-3">
      <div className="flex flex-wrap gap-x-5 gap-y-2 items-center">
        {SAYS.map(([value, words]) => (
          <label key={value} className="flex gap-2 items-center">
            <input type="radio" name="says" checked={says === value} onChange={() => setSays(value)} /> {words}
          </label>
        ))}
        {says !== 'refused' && (
          <label className="flex gap-2 items-center">
            all of it on
            <Input
              type="date"
              className="w-[150px]"
              aria-label="Promised for all of it"
              value={day}
              onChange={(e) => setDay(e.target.value)}
            />
          </label>
        )}
      </div>
      {says === 'changed' && (
        <div className="overflow-x-auto">
          <LinesTable>
            <thead>
              <tr>
                <th>Goods</th>
                <th className="num">Ordered</th>
                <th className="num">They send</th>
                <th className="num">At</th>
                <th>On</th>
                <th>Not at all</th>
              </tr>
            </thead>
            <tbody>
              {open.map((l) => {
                const of = said[l.line] ?? AS_ORDERED;
                return (
                  <tr key={l.line}>
                    <td>{l.name}</td>
                    <td className="num">
                      {l.packs} {l.packs === 1 ? l.pack : l.packPlural}
                    </td>
                    <td className="num" style={{ width: 84 }}>
                      <Input
                        className="num"
                        inputMode="numeric"
                        aria-label={`They send, line ${l.line}`}
                        placeholder={String(l.packs)}
                        disabled={of.refused}
                        value={of.packs}
                        onChange={(e) => put(l.line, { packs: e.target.value.replace(/\D/g, '') })}
                      />
                    </td>
                    <td className="num" style={{ width: 110 }}>
                      <Input
                        className="num"
                        inputMode="decimal"
                        aria-label={`Price, line ${l.line}`}
                        placeholder={l.price?.replace(/(\.\d\d)0+$/, '$1')}
                        disabled={of.refused}
                        value={of.price}
                        onChange={(e) => put(l.line, { price: e.target.value.trim() })}
                      />
                    </td>
                    <td style={{ width: 150 }}>
                      <Input
                        type="date"
                        aria-label={`Day, line ${l.line}`}
                        disabled={of.refused}
                        value={of.on}
                        onChange={(e) => put(l.line, { on: e.target.value })}
                      />
                    </td>
                    <ChooseCell says={`Not at all, line ${l.line}`} checked={of.refused} onChoose={(refused) => put(l.line, { refused })} />
                  </tr>
                );
              })}
            </tbody>
          </LinesTable>
        </div>
      )}
      <div className="flex gap-3 items-center">
        <Input
          className="flex-1"
          aria-label="Whom you spoke to, and what was said"
          placeholder="whom you spoke to, and what was said"
          maxLength={300}
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
        <Button type="button" disabled={keep.isPending} onClick={() => keep.mutate()}>
          Note it
        </Button>
        <TextButton type="button" onClick={() => setOpen(false)}>
          Leave it
        </TextButton>
      </div>
      <ProblemNote problem={keep.error} />
    </section>
  );
}
