import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask } from '../api/client';
import { key } from '../api/keys';
import { useAct } from '../api/use-act';
import { TextButton } from '../ui/button';
import { Select } from '../ui/input';
import { ProblemNote } from '../ui/states';

/** Sends a paper to one of the printers of one's sites; what becomes of it stands under Setup, Printers. */
export function PrintAt({ paper, code, says }: { paper: string; code: string; says: string }) {
  const printers = useQuery({ queryKey: key('printers'), queryFn: () => ask(api.GET('/api/labels/printers')) });
  const [chosen, setChosen] = useState<number | null>(null);
  const printerId = chosen ?? printers.data?.[0]?.id ?? 0;
  const print = useAct({
    act: (_: void, once) => ask(api.POST('/api/labels/papers', { headers: once, body: { paper, code, printerId } })),
  });
  if (!printers.data || printers.data.length === 0) return null;
  const [only, other] = printers.data;
  return (
    <span className="flex gap-2 items-center">
      <TextButton type="button" disabled={print.isPending} onClick={() => print.mutate()}>
        {print.isSuccess ? `Sent to ${print.data.printer}. Again` : `Print ${says}`}
      </TextButton>
      {other ? (
        <Select
          className="w-[150px]"
          aria-label={`Printer for ${says}`}
          value={printerId}
          onChange={(e) => setChosen(Number(e.target.value))}
        >
          {printers.data.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </Select>
      ) : (
        <span className="note">at {only?.name}</span>
      )}
      <ProblemNote problem={print.error} />
    </span>
  );
}
