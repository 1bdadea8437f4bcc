import { useAct } from '../../api/use-act';
import { sendFile } from '../../api/send-file';
import { CameraFile } from '../../ui/camera-file';
import { ProblemNote } from '../../ui/states';
import { KeyLabel } from '../../ui/phone/parts';

/** After damaged or wrong goods: the phone's camera, for the supplier to see. */
export function DamagePicture({ receiptId, name, onDone }: { receiptId: number; name: string; onDone: () => void }) {
  const send = useAct({ act: (file: File, once) => sendFile('PUT', `/api/receipts/${receiptId}/picture`, file, once), onDone: onDone });
  return (
    <div className="px-[14px] mb-3">
      <KeyLabel className="cursor-pointer" style={{ minHeight: 64 }}>
        {send.isPending ? 'On its way …' : `Picture of ${name}`}
        <CameraFile onFile={(file) => send.mutate(file)} />
      </KeyLabel>
      <ProblemNote problem={send.error} />
    </div>
  );
}
