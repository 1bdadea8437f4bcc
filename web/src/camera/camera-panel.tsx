import { useCallback, useRef } from 'react';
import { emitScan } from '../scanner/use-scanner';
import { AIM } from './aim';
import { CAMERA_WORDS, useCamera } from './use-camera';
import { Key } from '../ui/phone/parts';

/** The camera as a scanner: its picture with four corners to aim by, and its keys. What it reads goes where any scan goes. */
export function CameraPanel({ onClose }: { onClose: () => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const onScan = useCallback((code: string, at: number) => emitScan(code, at), []);
  const { state, struck, torch, light } = useCamera(video, onScan);
  const failed = state !== 'opening' && state !== 'open';
  return (
    <section className="camera" aria-label="Camera" data-state={state}>
      {failed ? (
        <p role="alert">{CAMERA_WORDS[state]}.</p>
      ) : (
        <div className="sight">
          <video ref={video} muted playsInline aria-label="What the camera sees" />
          <div
            className={`aim ${struck ? 'struck' : ''}`}
            style={{ width: `${AIM.width * 100}%`, height: `${AIM.height * 100}%` }}
            aria-hidden
          >
            <i />
            <i />
            <i />
            <i />
          </div>
          {state === 'opening' && <p role="status">The camera opens …</p>}
        </div>
      )}
      <div className="camera-keys">
        {torch !== null && (
          <Key type="button" aria-pressed={torch} onClick={() => void light(!torch)}>
            Torch
          </Key>
        )}
        <Key type="button" onClick={onClose}>
          Close camera
        </Key>
      </div>
    </section>
  );
}
