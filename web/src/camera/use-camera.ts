import { useEffect, useRef, useState } from 'react';
import { Aim, aimedPart } from './aim';
import type { CodesOut, PictureIn } from './reader.worker';

const STRUCK_MS = 350;

export type CameraState = 'opening' | 'open' | 'refused' | 'none' | 'insecure' | 'failed';

/** What there is to say where the camera does not open. */
export const CAMERA_WORDS: Readonly<Record<Exclude<CameraState, 'opening' | 'open'>, string>> = {
  refused: 'This page may not use the camera. Allow it in the browser’s settings for this page, then open it again',
  none: 'This device has no camera that the browser can use. Type the code, or use a scanner',
  insecure: 'The camera needs a secure page. Open this house by its https address; the office shows it under Setup, Devices',
  failed: 'The camera does not start. Close other programs that use it, then open it again',
};

function stateOf(thrown: unknown): CameraState {
  const name = thrown instanceof DOMException ? thrown.name : '';
  if (name === 'NotAllowedError' || name === 'SecurityError') return 'refused';
  return name === 'NotFoundError' || name === 'OverconstrainedError' ? 'none' : 'failed';
}

/**
 * Runs the camera into a video element and reads codes from its pictures in a worker, one picture at a time. `onScan` hears
 * each code with the moment at which its picture was taken.
 */
export function useCamera(video: React.RefObject<HTMLVideoElement | null>, onScan: (code: string, at: number) => void) {
  const [state, setState] = useState<CameraState>(() => ((navigator.mediaDevices as MediaDevices | undefined) ? 'opening' : 'insecure'));
  const [struck, setStruck] = useState(false);
  const [torch, setTorch] = useState<boolean | null>(null);
  const track = useRef<MediaStreamTrack | undefined>(undefined);
  const heard = useRef(onScan);
  useEffect(() => {
    heard.current = onScan;
  });

  useEffect(() => {
    if (!(navigator.mediaDevices as MediaDevices | undefined)) return;
    const worker = new Worker(new URL('./reader.worker.ts', import.meta.url), { type: 'module' });
    const aim = new Aim();
    let stopped = false;
    let stream: MediaStream | undefined;
    let taken = 0;
    let timer = 0;

    const next = () => {
      if (stopped) return;
      const shown = video.current;
      if (!shown || shown.readyState < HTMLMediaElement.HAVE_CURRENT_DATA || document.hidden)
        return void (timer = window.setTimeout(next, 60));
      const { left, top, width, height } = aimedPart(
        { width: shown.videoWidth, height: shown.videoHeight },
        { width: shown.clientWidth, height: shown.clientHeight },
      );
      taken = performance.now();
      createImageBitmap(shown, left, top, width, height)
        .then((bitmap) => (stopped ? bitmap.close() : worker.postMessage({ bitmap } satisfies PictureIn, [bitmap])))
        .catch(() => (timer = window.setTimeout(next, 120)));
    };
    worker.onmessage = ({ data }: MessageEvent<CodesOut>) => {
      if (stopped) return;
      const code = aim.look(data.seen, taken);
      if (code !== null) {
        setStruck(true);
        window.setTimeout(() => setStruck(false), STRUCK_MS);
        heard.current(code, taken);
      }
      requestAnimationFrame(next);
    };
    worker.onerror = () => setState('failed');

    navigator.mediaDevices
      .getUserMedia({ audio: false, video: { facingMode: { ideal: 'environment' }, width: { ideal: 1280 }, height: { ideal: 720 } } })
      .then(async (given) => {
        stream = given;
        if (stopped) return given.getTracks().forEach((t) => t.stop());
        track.current = given.getVideoTracks()[0];
        // The browser's types know nothing of the torch yet.
        const can: object = track.current?.getCapabilities?.() ?? {};
        setTorch('torch' in can && can.torch ? false : null);
        if (video.current) {
          video.current.srcObject = given;
          await video.current.play().catch(() => undefined);
        }
        setState('open');
        next();
      })
      .catch((thrown: unknown) => setState(stateOf(thrown)));
    return () => {
      stopped = true;
      window.clearTimeout(timer);
      worker.terminate();
      stream?.getTracks().forEach((t) => t.stop());
    };
  }, [video]);

  const light = async (on: boolean) => {
    await track.current?.applyConstraints({ advanced: [{ torch: on } as MediaTrackConstraintSet] });
    setTorch(on);
  };
  return { state, struck, torch, light };
}
