import type { LoadParcel, LoadTask } from '@vectrum/core/scan';
import { useState } from 'react';
import { plural } from '../../ui/format';
import { Ask, Key, Keys, PhoneBody, PhoneHead, PhoneLink, Say, Typed } from '../../ui/phone/parts';
import { PenField } from './pen-field';

/** The driver's name and signature, and what stays behind: the van leaves with what is on it. */
export function SignPage({
  task,
  loaded,
  left,
  onBack,
  onSign,
}: {
  task: LoadTask;
  loaded: readonly LoadParcel[];
  left: readonly LoadParcel[];
  onBack: () => void;
  onSign: (driver: string, signature: string | null) => void;
}) {
  const [driver, setDriver] = useState('');
  const [signature, setSignature] = useState<string | null>(null);
  const [drawing, setDrawing] = useState(0);
  return (
    <>
      <PhoneHead>
        <button type="button" className="min-h-[44px] text-left" onClick={onBack}>
          ‹ Load on
        </button>
        <span className="code">{task.lane}</span>
        <span>{task.carrierName}</span>
      </PhoneHead>
      <Ask>{plural(loaded.length, 'parcel goes', 'parcels go')} with the driver</Ask>
      <PhoneBody>
        {left.length > 0 && (
          <Say className="text-[17px]">
            <span className="stamped">
              {plural(left.length, 'parcel stays', 'parcels stay')} behind:{' '}
              {left.slice(0, 3).map((p) => (
                <span key={p.code} className="code whitespace-nowrap pr-2">
                  {p.code}
                </span>
              ))}
              {left.length > 3 && `and ${left.length - 3} more`}
            </span>
          </Say>
        )}
        <Say className="text-[17px] pb-2">Driver’s name</Say>
        <Typed onSubmit={(e) => e.preventDefault()}>
          <input aria-label="Driver’s name" value={driver} maxLength={80} autoComplete="off" onChange={(e) => setDriver(e.target.value)} />
        </Typed>
        <Say className="text-[17px] pb-2">
          Signature{' '}
          {signature && (
            <PhoneLink
              onClick={() => {
                setSignature(null);
                setDrawing((n) => n + 1);
              }}
            >
              Begin again
            </PhoneLink>
          )}
        </Say>
        <PenField key={drawing} onDrawn={setSignature} />
      </PhoneBody>
      <Keys className="pt-3">
        <Key type="button" next disabled={driver.trim() === ''} onClick={() => onSign(driver, signature)}>
          {signature ? 'Sign and hand over' : 'Hand over unsigned'}
        </Key>
      </Keys>
    </>
  );
}
