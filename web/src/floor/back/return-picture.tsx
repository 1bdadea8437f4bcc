import { useAct } from '../../api/use-act';
import { sendFile } from '../../api/send-file';
import { KeyLabel } from '../../ui/phone/parts';
import { CameraFile } from '../../ui/camera-file';
import { ProblemNote } from '../../ui/states';

/** A picture of goods as they came back, with the phone's own camera. */
export function ReturnPicture({ code }: { code: string }) {
  const send = useAct({ act: (file: File, once) => sendFile('POST', `/api/customer-returns/${code}/pictures`, file, once) });
  return (
    <>
      <KeyLabel className="relative focus-within:outline-2">
        {send.isPending ? 'On its way …' : send.isSuccess ? 'Pictured. Another' : 'Picture'}
        <CameraFile onFile={(file) => send.mutate(file)} />
      </KeyLabel>
      <ProblemNote problem={send.error} />
    </>
  );
}
