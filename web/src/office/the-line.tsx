import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { NavLink, useLocation } from 'react-router';
import type { Dto } from '../api/client';
import { useLine } from '../api/queries';
import { age, clock, olderThan, whole } from '../ui/format';
import { Glyph } from '../ui/glyph';
import { bandPath, halfThickness, MIDDLE, NOW_WIDTH, paceWords, THINNEST } from './line-band';

const STAGES = [
  ['inbound', 'Inbound', '/inbound'],
  ['shelves', 'Shelves', '/shelves'],
  ['orders', 'Orders', '/orders'],
  ['picking', 'Picking', '/picking'],
  ['packing', 'Packing', '/packing'],
  ['dispatch', 'Dispatch', '/dispatch'],
] as const;

const OLD_MS = 24 * 3_600_000;

function Band({ stages, width }: { stages: Dto['StageDto'][]; width: number }) {
  const step = (width - NOW_WIDTH) / stages.length;
  const halves = stages.map((s) => halfThickness(s.hours, s.hoursADay));
  return (
    <svg width={width} height="30" viewBox={`0 0 ${width} 30`} aria-hidden>
      <defs>
        <pattern id="hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="5" height="5" fill="var(--color-desk)" />
          <rect width="2.6" height="5" fill="var(--color-stamp)" />
        </pattern>
      </defs>
      <path d={bandPath(halves, width)} fill="var(--color-ink)" style={{ transition: 'd var(--dur-line) var(--ease-set)' }} />
      {stages.map((s, i) =>
        s.hours === null ? (
          <path
            key={s.stage}
            d={`M${NOW_WIDTH + i * step + 16} ${MIDDLE}H${NOW_WIDTH + (i + 1) * step - 16}`}
            stroke="var(--color-desk)"
            strokeWidth={2 * THINNEST + 1}
            strokeDasharray="4 4"
          />
        ) : null,
      )}
      {stages.map((s, i) => {
        const half = halves[i] ?? THINNEST;
        const length = s.count > 0 ? Math.min(step - 36, ((step - 36) * s.stuck) / s.count) : 0;
        const end = NOW_WIDTH + (i + 1) * step - 20;
        return length > 0 ? (
          <rect
            key={s.stage}
            x={end - length}
            y={MIDDLE - half}
            width={length}
            height={half * 2}
            fill="url(#hatch)"
            stroke="var(--color-stamp)"
            strokeWidth="1.5"
          />
        ) : null;
      })}
      <path
        d={`M${NOW_WIDTH + 16} 5H${width - 36}M${NOW_WIDTH + 16} 25H${width - 36}`}
        stroke="var(--color-rule-firm)"
        strokeDasharray="1 4"
      />
      {stages.map((s, i) => (
        <path key={s.stage} d={`M${NOW_WIDTH - 5 + i * step} 0h5l8 15-8 15h-5l8-15z`} fill="var(--color-desk)" />
      ))}
    </svg>
  );
}

function Stage({ stage, name, to, data }: { stage: string; name: string; to: string; data: Dto['StageDto'] | undefined }) {
  return (
    <NavLink to={to} data-stage={stage} title={data && paceWords(data)}>
      <span className="st">
        {name}
        {data?.oldest && data.count > 0 && (
          <i className={olderThan(data.oldest, OLD_MS) ? 'old' : ''}>
            {stage === 'inbound' ? 'at door ' : 'oldest '}
            {age(data.oldest)}
          </i>
        )}
      </span>
      <span className="q">
        <b>{data ? whole(data.count) : '·'}</b>
        <span>{data?.unit}</span>
        {data !== undefined && data.stuck > 0 && (
          <em>
            <Glyph name="blocked" size={11} /> {whole(data.stuck)} stuck
          </em>
        )}
      </span>
    </NavLink>
  );
}

/** The strip of stages: the flow is the navigation. */
export function TheLine() {
  const line = useLine();
  const nav = useRef<HTMLElement>(null);
  const [width, setWidth] = useState(1280);
  useLayoutEffect(() => {
    const element = nav.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setWidth(element.scrollWidth));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  // Where the Line is wider than the screen, the open stage is brought into view.
  const { pathname } = useLocation();
  useEffect(() => {
    nav.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [pathname, width]);
  const stages = STAGES.map(([stage]) => line.data?.stages.find((s) => s.stage === stage)).filter((s) => s !== undefined);
  return (
    <div className="line-wrap">
      <nav className="line" aria-label="The Line" ref={nav} style={{ height: 92 }}>
        <NavLink to="/" end>
          <span className="st">Now</span>
          <span className="q">
            <b>{clock(new Date())}</b>
          </span>
        </NavLink>
        {STAGES.map(([stage, name, to]) => (
          <Stage key={stage} stage={stage} name={name} to={to} data={line.data?.stages.find((s) => s.stage === stage)} />
        ))}
        {line.data && <Band stages={stages} width={width} />}
      </nav>
    </div>
  );
}
