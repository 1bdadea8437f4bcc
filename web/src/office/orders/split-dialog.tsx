import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ask, ifMatch, ProblemError, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { whole } from '../../ui/format';
import { Input, Select } from '../../ui/input';
import { ProblemNote } from '../../ui/states';
import { DenseTable } from '../../ui/table';

type Order = Pick<Dto['OrderDto'], 'code' | 'version' | 'siteId' | 'lines'>;

/** Moves some of an order onto an order of its own, here or at another site; `from` is what a way to send it proposes. */
export function SplitDialog({
  order,
  from,
  onClose,
}: {
  order: Order;
  from?: { siteId: number; lines: { line: number; units: number }[] } | undefined;
  onClose: () => void;
}) {
  const navigate = useNavigate();
  const me = useMe();
  const [siteId, setSiteId] = useState(from?.siteId ?? order.siteId);
  const [units, setUnits] = useState<Readonly<Record<number, string>>>(() =>
    Object.fromEntries((from?.lines ?? []).map((l) => [l.line, String(l.units)])),
  );
  const lines = order.lines.filter((l) => l.wanted > l.shipped && l.sku !== null && l.kit === null);
  const moved = lines.flatMap((l) => {
    const n = Number(units[l.line] ?? '');
    return Number.isInteger(n) && n > 0 ? [{ line: l.line, units: n }] : [];
  });
  const split = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/orders/{code}/split', {
          params: { path: { code: order.code } },
          headers: { ...once, ...ifMatch(order.version) },
          body: { siteId, lines: moved },
        }),
      ),
    onDone: ({ code }) => {
      onClose();
      void navigate(`/orders/${code}`);
    },
  });
  const faults = split.error instanceof ProblemError ? split.error.fields : {};
  return (
    <Dialog title={`Split ${order.code}`} about="What goes onto an order of its own; what is promised goes with it." onClose={onClose}>
      <Field label="It ships from" className="mt-3">
        <Select aria-label="It ships from" value={siteId} onChange={(e) => setSiteId(Number(e.target.value))}>
          {me.data?.sites.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </Select>
      </Field>
      <DenseTable className="w-full mt-2">
        <thead>
          <tr>
            <th>Goods</th>
            <th className="num">On the order</th>
            <th className="num">Onto the new one</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((l) => (
            <tr key={l.line}>
              <td className="max-w-[190px] overflow-hidden text-ellipsis">{l.name}</td>
              <td className="num">{whole(l.wanted - l.shipped)}</td>
              <td className="num" style={{ width: 90 }}>
                <Input
                  className="num"
                  inputMode="numeric"
                  aria-label={`How many of ${l.name ?? ''}`}
                  value={units[l.line] ?? ''}
                  onChange={(e) => setUnits({ ...units, [l.line]: e.target.value })}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
      {faults['lines'] ? <p className="fault">{faults['lines']}</p> : <ProblemNote problem={split.error} />}
      <span className="flex gap-3 mt-3">
        <Button type="button" next disabled={moved.length === 0 || split.isPending} onClick={() => split.mutate()}>
          Split it
        </Button>
        <Button type="button" onClick={onClose}>
          Leave it
        </Button>
      </span>
    </Dialog>
  );
}
