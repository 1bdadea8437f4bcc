import { sendFile } from '../api/send-file';
import { useAct } from '../api/use-act';
import { CameraFile } from '../ui/camera-file';
import { ProblemNote } from '../ui/states';

/** The camera of the table, for a picture of what lies in the parcel before it is closed; another one replaces it. */
export function ParcelPicture({ code }: { code: string }) {
  const send = useAct({ act: (file: File, once) => sendFile('PUT', `/api/bench/parcels/${code}/picture`, file, once) });
  return (
    <>
      <label className="flex items-baseline gap-2 min-h-6 cursor-pointer underline underline-offset-4 focus-within:outline-2 focus-within:outline-ink">
        {send.isPending ? 'On its way …' : send.isSuccess ? 'Pictured. Take another' : 'Take a picture of what is in it'}
        <CameraFile onFile={(file) => send.mutate(file)} />
      </label>
      <ProblemNote problem={send.error} />
    </>
  );
}
