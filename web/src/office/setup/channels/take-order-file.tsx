import type { Dto } from '../../../api/client';
import { sendFile } from '../../../api/send-file';
import { useAct } from '../../../api/use-act';
import { TextLabel } from '../../../ui/button';
import { plural } from '../../../ui/format';
import { Said } from '../../../ui/page';
import { ProblemNote } from '../../../ui/states';

/** Takes a file of orders in by hand: the documented CSV, or a UBL 2.1 Order. */
export function TakeOrderFile({ channel }: { channel: string }) {
  const take = useAct({
    act: (file: File, once) => sendFile<Dto['TakenFileDto']>('POST', `/api/channels/${channel}/files`, file, once),
  });
  const done = take.data;
  return (
    <>
      <TextLabel className="cursor-pointer">
        Take a file of orders in
        <input
          type="file"
          accept=".csv,.xml,.json,text/csv,application/xml,text/xml"
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) take.mutate(file);
            e.target.value = '';
          }}
        />
      </TextLabel>
      {done && (
        <Said role="status">
          {plural(done.taken.length, 'order', 'orders')} taken in
          {done.known > 0 && `, ${done.known} known already`}
          {done.parked > 0 && `, ${done.parked} put aside to be mended`}
        </Said>
      )}
      <ProblemNote problem={take.error} />
    </>
  );
}
