import { useQuery } from '@tanstack/react-query';
import { useAct } from '../api/use-act';
import { key } from '../api/keys';
import { api, ask } from '../api/client';
import { ProblemNote } from '../ui/states';
import { Key } from '../ui/phone/parts';

/** Prints a label at this device's printer: a roll where there is a design for one. */
export function PrintLabel({
  subject,
  code,
  holds,
  lot,
  expires,
  copies = 1,
  says,
}: {
  subject: string;
  code: string;
  holds?: number;
  lot?: string | null;
  expires?: string | null;
  /** How many of it; one unless said. */
  copies?: number;
  /** A short word for a row of keys; without it the key stands by itself. */
  says?: string;
}) {
  const designs = useQuery({ queryKey: key('designs'), queryFn: () => ask(api.GET('/api/labels/designs')), staleTime: 60_000 });
  const own = (designs.data ?? []).filter((d) => d.subject === subject);
  const design =
    own.find(
      (d) =>
        d.media.kind === 'roll' &&
        (lot ? d.elements.some((e) => e.value?.includes('{gs1}')) : !d.elements.some((e) => e.value?.includes('{gs1}'))),
    ) ?? own[0];
  const print = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/labels/print', {
          body: {
            designId: design?.id ?? 0,
            copies,
            start: 1,
            printerId: 0,
            labels: [{ code, ...(holds ? { holds } : {}), ...(lot ? { lot } : {}), ...(expires ? { expires } : {}) }],
          },
          headers: once,
        }),
      ),
  });
  if (!design) return null;
  return (
    <div className={says ? 'grid' : 'mx-[14px] mt-3'}>
      <Key type="button" className="w-full" disabled={print.isPending} onClick={() => print.mutate()}>
        {print.isSuccess ? `Sent to ${print.data.printer}` : (says ?? 'Print a label')}
      </Key>
      <ProblemNote problem={print.error} />
    </div>
  );
}
