import type { FilledBox } from '@vectrum/core/cartons';
import { lazy, Suspense, useMemo, useState } from 'react';
import type { Dto } from '../../api/client';
import { Glyph } from '../../ui/glyph';
import { DrawnBox } from './drawn-box';
import type { ParcelBox } from './use-parcel-box';
import type { Look } from './scene';

const BoxScene = lazy(() => import('./box-scene'));

type Carton = Dto['CartonDto'];
const innerOf = (c: Carton) => [c.lengthMm, c.widthMm, c.heightMm] as const;

/**
 * The box of the parcel in use and how goods lie in it, in the order in which they are laid: what is in, and the next in the highlighter.
 * Left and right step through it. Where goods cannot be laid out, only how full it is.
 */
export function BoxView({
  box,
  lines,
  contents,
  next,
  share,
}: {
  box: ParcelBox;
  lines: Dto['PackLineDto'][];
  contents: readonly { line: number; units: number }[];
  /** The line that is next to scan. */
  next: number | undefined;
  /** How much of what goes into this box is in it, 0 to 1. */
  share: number;
}) {
  const [none, setNone] = useState(false);
  const [onNone] = useState(() => () => setNone(true));
  const { chosen, laid } = box;
  if (!chosen) return null;
  const says = `Box ${chosen.carton.code}, ${innerOf(chosen.carton).join(' by ')} mm, ${Math.round(share * chosen.fill)} % full`;
  const plain = <DrawnBox inner={innerOf(chosen.carton)} level={Math.min(1, (share * chosen.fill) / 100)} span={190} says={says} />;
  if (!laid || none) return plain;
  return (
    <Suspense fallback={plain}>
      <Steps
        key={chosen.carton.code}
        carton={chosen.carton}
        laid={laid}
        lines={lines}
        contents={contents}
        next={next}
        onNone={onNone}
        says={says}
      />
    </Suspense>
  );
}

function Steps({
  carton,
  laid,
  lines,
  contents,
  next,
  onNone,
  says,
}: {
  carton: Carton;
  laid: FilledBox;
  lines: Dto['PackLineDto'][];
  contents: readonly { line: number; units: number }[];
  next: number | undefined;
  onNone: () => void;
  says: string;
}) {
  const done = JSON.stringify(contents);
  const [step, setStep] = useState<{ at: number; when: string } | null>(null);
  const shown = step?.when === done ? step.at : null;
  const units = useMemo(
    () =>
      shown === null
        ? looksOf(laid, lines, JSON.parse(done) as typeof contents, next)
        : laid.placements.map((p, i) => ({ ...p, look: lookAt(i, shown) })),
    [done, laid, lines, next, shown],
  );
  const at = units.findIndex((u) => u.look === 'next');
  const go = (to: number) => setStep({ at: Math.min(units.length, Math.max(0, to)), when: done });
  const from = shown ?? (at < 0 ? units.filter((u) => u.look === 'in').length : at);
  return (
    <div>
      <BoxScene inner={innerOf(carton)} units={units} says={says} numberOf={(good) => lines[good]?.line ?? 0} onNone={onNone} />
      <div className="box-steps">
        <button type="button" aria-label="One step back" disabled={from === 0} onClick={() => go(from - 1)}>
          <Glyph name="go" size={15} className="-scale-x-100" />
        </button>
        <span>
          {Math.min(from + 1, units.length)} of {units.length}
        </span>
        <button type="button" aria-label="One step on" disabled={from >= units.length} onClick={() => go(from + 1)}>
          <Glyph name="go" size={15} />
        </button>
      </div>
    </div>
  );
}

const lookAt = (index: number, step: number): Look => (index < step ? 'in' : index === step ? 'next' : 'later');

/** How each unit looks while the box is filled: so many of each line as were scanned are in, one of the line at hand is next. */
function looksOf(
  laid: FilledBox,
  lines: Dto['PackLineDto'][],
  contents: readonly { line: number; units: number }[],
  next: number | undefined,
) {
  const left = new Map<number, number>();
  for (const c of contents) left.set(c.line, (left.get(c.line) ?? 0) + c.units);
  let wanted = next;
  return laid.placements.map((p) => {
    const line = lines[p.good]?.line ?? 0;
    const have = left.get(line) ?? 0;
    left.set(line, have - 1);
    const look: Look = have > 0 ? 'in' : line === wanted ? 'next' : 'later';
    if (look === 'next') wanted = undefined;
    return { ...p, look };
  });
}
