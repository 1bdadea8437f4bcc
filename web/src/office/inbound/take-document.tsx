import { useAct } from '../../api/use-act';
import { useNavigate } from 'react-router';
import type { Dto } from '../../api/client';
import { sendFile } from '../../api/send-file';
import { ProblemNote } from '../../ui/states';
import { TextLabel } from '../../ui/button';

/** Takes in what a supplier sent as UBL: an answer to an order, or an advice of what is on its way. */
export function TakeDocument() {
  const navigate = useNavigate();
  const take = useAct({
    act: (file: File, once) => sendFile<Dto['TakenDocumentDto']>('POST', '/api/supplier-documents', file, once),
    onDone: ({ kind, code }) => {
      void navigate(kind === 'DespatchAdvice' ? `/inbound/arrivals/${code}` : `/inbound/${code}`);
    },
  });
  return (
    <>
      <TextLabel className="cursor-pointer">
        Take in a supplier’s file
        <input
          type="file"
          accept=".xml,application/xml,text/xml"
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) take.mutate(file);
            e.target.value = '';
          }}
        />
      </TextLabel>
      <ProblemNote problem={take.error} />
    </>
  );
}
