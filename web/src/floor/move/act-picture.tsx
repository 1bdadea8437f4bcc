import { sendFile } from '../../api/send-file';
import { useAct } from '../../api/use-act';
import { CameraFile } from '../../ui/camera-file';
import { KeyLabel } from '../../ui/phone/parts';
import { ProblemNote } from '../../ui/states';

/** After goods were used up or found otherwise: a picture beside the reason, with the phone's own camera. */
export function ActPicture({ activityId }: { activityId: number }) {
  const send = useAct({ act: (file: File, once) => sendFile('PUT', `/api/tape/${activityId}/picture`, file, once) });
  return (
    <div className="px-[14px] mb-3">
      <KeyLabel className="relative cursor-pointer focus-within:outline-2" style={{ minHeight: 56 }}>
        {send.isPending ? 'On its way …' : send.isSuccess ? 'Pictured. Take another' : 'Take a picture of it'}
        <CameraFile onFile={(file) => send.mutate(file)} />
      </KeyLabel>
      <ProblemNote problem={send.error} />
    </div>
  );
}
