import { useAct } from '../api/use-act';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ask } from '../api/client';
import { useCameraOpen } from '../camera/camera-open';
import { CameraPanel } from '../camera/camera-panel';
import { forgetSite } from '../flow/device-choices';
import { useScanner } from '../scanner/use-scanner';
import { ProblemNote } from '../ui/states';
import { PhoneFrame, Ask, Key, Keys, Typed } from '../ui/phone/parts';

/** Enrols this device with a code from the office screen: scanned, or typed. */
export function EnrolPage() {
  const [code, setCode] = useState('');
  const navigate = useNavigate();
  const enrol = useAct({
    act: (given: string, once) => ask(api.POST('/api/devices/enrol', { body: { code: given }, headers: once })),
    onDone: () => {
      forgetSite();
      void navigate('/floor/sign-in');
    },
  });
  useScanner((scanned) => enrol.mutate(scanned.replace(/^.*#/, '')));
  const [camera, setCamera] = useCameraOpen();
  const begun = useRef(false);
  useEffect(() => {
    // A phone's camera opens this page by the address in the code on the office screen; the code itself never reaches a log.
    const given = window.location.hash.slice(1);
    if (given === '' || begun.current) return;
    begun.current = true;
    enrol.mutate(given);
  }, [enrol]);
  return (
    <PhoneFrame data-face="floor">
      {camera && <CameraPanel onClose={() => setCamera(false)} />}
      <Ask className="pt-6">Scan the code on the office screen</Ask>
      <Typed
        className="mt-4"
        onSubmit={(e) => {
          e.preventDefault();
          enrol.mutate(code);
        }}
      >
        <input
          autoFocus
          autoComplete="off"
          autoCapitalize="characters"
          aria-label="Enrolment code"
          placeholder="or type it"
          value={code}
          onChange={(e) => setCode(e.target.value)}
        />
        <Key next className="px-5" disabled={code.trim() === '' || enrol.isPending}>
          Enrol
        </Key>
      </Typed>
      <div className="mx-[14px]">
        <ProblemNote problem={enrol.error} />
      </div>
      {!camera && (
        <Keys style={{ marginTop: 'auto' }}>
          <Key type="button" onClick={() => setCamera(true)}>
            Camera
          </Key>
        </Keys>
      )}
    </PhoneFrame>
  );
}
