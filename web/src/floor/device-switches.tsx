import { Link } from 'react-router';
import { useMe, useSite } from '../api/queries';
import { useScansEach, useSound, useVibration } from '../flow/device-choices';
import { Key } from '../ui/phone/parts';

/** Where this device works; whoever has several sites chooses, and it stays chosen. */
export function SiteChoice() {
  const { site, sites, choose } = useSite();
  if (sites.length < 2) return <span>{site?.name}</span>;
  return (
    <label className="flex items-center gap-2">
      <span className="sr">Site</span>
      <select className="min-h-[44px] font-semibold underline" value={site?.id ?? ''} onChange={(e) => choose(Number(e.target.value))}>
        {sites.map((s) => (
          <option key={s.id} value={s.id} className="text-ink bg-sheet">
            {s.name}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Names the site above a list, for those who have several. */
export function SiteName() {
  const { site, sites } = useSite();
  return sites.length < 2 ? null : <>{site?.name}</>;
}

function Switch({ says, off, turn }: { says: string; off: boolean; turn: (off: boolean) => void }) {
  return (
    <Key
      type="button"
      role="switch"
      aria-checked={!off}
      className="grow"
      style={{ minHeight: 52, fontSize: 17 }}
      onClick={() => turn(!off)}
    >
      {says} {off ? 'off' : 'on'}
    </Key>
  );
}

/** What this device does beside the band: sound and vibration, each for itself; whether its person scans each piece; what its scanner sends. */
export function DeviceSwitches() {
  const [mute, setMute] = useSound();
  const [still, setStill] = useVibration();
  const me = useMe();
  const [each, setEach] = useScansEach(me.data?.id);
  return (
    <>
      <div className="flex gap-[10px] px-[14px] mt-4">
        <Switch says="Sound" off={mute} turn={setMute} />
        <Switch says="Vibration" off={still} turn={setStill} />
      </div>
      {me.data?.rights.includes('pick') && (
        <div className="flex gap-[10px] px-[14px] mt-[10px]">
          <Switch says="I scan each piece:" off={!each} turn={(off) => setEach(!off)} />
        </div>
      )}
      <p className="px-[18px] mt-2">
        <Link to="/floor/scanner" className="underline inline-grid items-center min-h-[44px]">
          Try the scanner with a test card
        </Link>
      </p>
    </>
  );
}
