import { useChosenScale } from '../flow/device-choices';
import { useScales } from './use-scale';

/** Which of several scales stands beside this table; it stays chosen on the device. One alone needs no choice. */
export function ScaleChoice() {
  const scales = useScales().data ?? [];
  const [scale, choose] = useChosenScale(scales);
  if (scales.length < 2) return null;
  return (
    <label className="flex items-center gap-2">
      <span className="sr">Scale</span>
      <select className="min-h-[44px] font-semibold underline" value={scale?.id ?? ''} onChange={(e) => choose(Number(e.target.value))}>
        {!scale && <option value="">which scale?</option>}
        {scales.map((s) => (
          <option key={s.id} value={s.id} className="text-ink bg-sheet">
            {s.name}
          </option>
        ))}
      </select>
    </label>
  );
}
