import { useState } from 'react';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { Button, TextButton } from '../../../ui/button';
import { Input } from '../../../ui/input';
import { BlockHead } from '../../../ui/page';
import { ProblemNote } from '../../../ui/states';
import { LinesTable } from '../../../ui/table';

/** Codes that nobody knew while they counted: what they turned out to be, or that they are nothing of the house's. */
export function CountCodes({ count: c }: { count: Dto['CountDto'] }) {
  const mayDecide = useMe().data?.rights.includes('settle-counts') ?? false;
  if (c.codes.length === 0) return null;
  return (
    <>
      <BlockHead>
        <h2>Codes that nobody knows</h2>
        <span className="note">say what they are, and their number is counted</span>
      </BlockHead>
      <LinesTable aria-label="Codes that nobody knows">
        <thead>
          <tr>
            <th>Code</th>
            <th>Bin</th>
            <th className="num">How many</th>
            <th>By</th>
            <th>It is</th>
          </tr>
        </thead>
        <tbody>
          {c.codes.map((k) => (
            <tr key={k.id}>
              <td className="code">{k.code}</td>
              <td className="code">{k.place}</td>
              <td className="num">{k.units}</td>
              <td className="mid">{k.by}</td>
              <td>{mayDecide && <Settle count={c} id={k.id} code={k.code} />}</td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
    </>
  );
}

function Settle({ count: c, id, code }: { count: Dto['CountDto']; id: number; code: string }) {
  const [sku, setSku] = useState('');
  const [lot, setLot] = useState('');
  const [factor, setFactor] = useState('1');
  const settle = useAct({
    act: (known: boolean, once) =>
      ask(
        api.POST('/api/counts/{code}/codes/{id}', {
          params: { path: { code: c.code, id } },
          body: { factor: Number(factor) || 1, ...(known ? { sku: sku.trim(), ...(lot.trim() ? { lot: lot.trim() } : {}) } : {}) },
          headers: { ...once, ...ifMatch(c.version) },
        }),
      ),
  });
  return (
    <>
      <span className="flex flex-wrap gap-2 items-center">
        <Input className="w-[110px]" aria-label={`SKU of ${code}`} placeholder="SKU" value={sku} onChange={(e) => setSku(e.target.value)} />
        <Input className="w-[80px]" aria-label={`Lot of ${code}`} placeholder="lot" value={lot} onChange={(e) => setLot(e.target.value)} />
        <Input
          className="num w-[60px]"
          inputMode="numeric"
          aria-label={`Units in one ${code}`}
          value={factor}
          onChange={(e) => setFactor(e.target.value)}
        />
        <Button type="button" disabled={!sku.trim() || settle.isPending} onClick={() => settle.mutate(true)}>
          Count it as that
        </Button>
        <TextButton type="button" disabled={settle.isPending} onClick={() => settle.mutate(false)}>
          Nothing of ours
        </TextButton>
      </span>
      <ProblemNote problem={settle.error} />
    </>
  );
}
