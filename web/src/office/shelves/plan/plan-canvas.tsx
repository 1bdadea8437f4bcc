import { type PlanPoint, pointOn, segmentLength } from '@vectrum/core/walk';
import type Konva from 'konva';
import { useEffect, useRef, useState } from 'react';
import { Arrow, Circle, Group, Label, Layer, Line, Rect, Stage, Tag, Text } from 'react-konva';
import type { Dto } from '../../../api/client';
import { ended, moved, segmentOf, snap, walkLine, type Draft, type Shape } from './plan-model';

export type Shading = 'fullness' | 'activity';

/** A walk over the plan, in a line of its own. */
export interface PlanWalk {
  stops: readonly PlanPoint[];
  line: readonly PlanPoint[];
  dash: number[];
  double: boolean;
  label: string;
  chosen: boolean;
  /** Where whoever walks it is; absent while nobody does. */
  here?: PlanPoint;
}

interface Props {
  draft: Draft;
  bays: readonly Dto['BayDto'][];
  shading: Shading;
  editing: boolean;
  selected: string | null;
  onSelect: (key: string | null) => void;
  onShape: (shape: Shape) => void;
  onPoint: (code: string, x: number, y: number) => void;
  onBay: (bay: Dto['BayDto']) => void;
  /** The walks of rounds, instead of the one past every bay. */
  walks?: readonly PlanWalk[];
}

const MARGIN = 18;
const RACK_M = 0.9;
const FONT = 'Atkinson Hyperlegible Next Variable, sans-serif';

/** The design's colours as the canvas wants them: read once from the page. */
function colours(box: HTMLElement) {
  const of = (name: string) => getComputedStyle(box).getPropertyValue(`--color-${name}`).trim() || '#333';
  return {
    ink: of('ink'),
    ink2: of('ink-2'),
    ink3: of('ink-3'),
    wash: of('ink-wash'),
    rule: of('rule'),
    firm: of('rule-firm'),
    sheet: of('sheet'),
    mark: of('mark'),
  };
}

/** The site to scale: bays are marks filled by how full or how busy they are, the walk is one line. Shapes are dragged into place. */
export function PlanCanvas({ draft, bays, shading, editing, selected, onSelect, onShape, onPoint, onBay, walks }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 800, height: 500 });
  const [paint, setPaint] = useState<ReturnType<typeof colours> | null>(null);
  useEffect(() => {
    const el = box.current;
    if (!el) return;
    setPaint(colours(el));
    const seen = new ResizeObserver(() => setSize({ width: el.clientWidth, height: el.clientHeight }));
    seen.observe(el);
    return () => seen.disconnect();
  }, []);
  const scale = Math.max(2, Math.min((size.width - 2 * MARGIN) / draft.widthM, (size.height - 2 * MARGIN) / draft.depthM));
  const px = (m: number) => m * scale;
  const most = Math.max(1, ...bays.map((b) => b.moves));
  const line = editing || walks ? [] : walkLine(draft, bays);
  // The chosen walk lies over the others.
  const drawn = [...(walks ?? [])].filter((w) => w.line.length > 1).sort((a, b) => Number(a.chosen) - Number(b.chosen));
  const fine = (e: Konva.KonvaEventObject<DragEvent>) => e.evt.altKey;

  const dragShape = (s: Shape) => ({
    draggable: editing,
    onMouseDown: () => editing && onSelect(s.key),
    onDragEnd: (e: Konva.KonvaEventObject<DragEvent>) => {
      const node = e.target;
      const next = moved(s, snap(node.x() / scale, fine(e)), snap(node.y() / scale, fine(e)), draft);
      node.position({ x: 0, y: 0 });
      onShape(next);
    },
  });
  return (
    <div ref={box} className="plan-box">
      {paint && (
        <Stage width={size.width} height={size.height} onMouseDown={(e) => e.target === e.target.getStage() && onSelect(null)}>
          <Layer x={MARGIN} y={MARGIN}>
            <Rect
              width={px(draft.widthM)}
              height={px(draft.depthM)}
              fill={paint.sheet}
              stroke={paint.ink}
              strokeWidth={1.5}
              listening={false}
            />
            {draft.shapes.map((s) => {
              const chosen = editing && s.key === selected;
              if (s.kind === 'aisle') return null;
              return (
                <Group key={s.key} {...dragShape(s)}>
                  <Line
                    points={[px(s.x), px(s.y), px(s.toX), px(s.toY)]}
                    stroke={s.kind === 'wall' ? paint.ink : chosen ? paint.ink : paint.firm}
                    strokeWidth={s.kind === 'wall' ? 4 : chosen ? 4 : 2}
                    dash={s.kind === 'wall' ? undefined : [6, 5]}
                    hitStrokeWidth={14}
                  />
                </Group>
              );
            })}
            {draft.shapes.map((s, i) => {
              if (s.kind !== 'aisle') return null;
              const seg = segmentOf(s, i);
              const own = bays.filter((b) => b.aisleId === s.id);
              const length = segmentLength(seg);
              const upright = Math.abs(s.toX - s.x) < Math.abs(s.toY - s.y);
              const step = own.length > 1 ? Math.abs((own[1]?.along ?? 0) - (own[0]?.along ?? 0)) : Math.max(1, length);
              const chosen = editing && s.key === selected;
              return (
                <Group key={s.key} {...dragShape(s)}>
                  <Line
                    points={[px(s.x), px(s.y), px(s.toX), px(s.toY)]}
                    stroke={chosen ? paint.ink : paint.rule}
                    strokeWidth={chosen ? px(0.6) : px(0.9)}
                    hitStrokeWidth={px(2.4)}
                  />
                  {own.map((b) => {
                    const at = pointOn(seg, b.along);
                    const share = shading === 'fullness' ? b.used / Math.max(1, b.bins) : b.moves / most;
                    const long = px(step) - 2;
                    return [-1, 1].map((side) => {
                      const x = px(at.x) + (upright ? side * px(RACK_M) - px(RACK_M) / 2 : -long / 2);
                      const y = px(at.y) + (upright ? -long / 2 : side * px(RACK_M) - px(RACK_M) / 2);
                      const [w, h] = upright ? [px(RACK_M), long] : [long, px(RACK_M)];
                      return (
                        <Group key={`${b.along}/${side}`} onClick={() => !editing && onBay(b)} onTap={() => !editing && onBay(b)}>
                          <Rect x={x} y={y} width={w} height={h} fill={paint.sheet} stroke={paint.ink3} strokeWidth={1} />
                          <Rect
                            x={x}
                            y={y + h * (1 - share)}
                            width={w}
                            height={h * share}
                            fill={walks ? paint.wash : paint.ink2}
                            listening={false}
                          />
                        </Group>
                      );
                    });
                  })}
                  <Text
                    x={px(s.x) - 20}
                    y={px(Math.min(s.y, s.toY)) - 15}
                    width={40}
                    align="center"
                    text={s.label}
                    fontFamily={FONT}
                    fontStyle="bold"
                    fontSize={13}
                    fill={paint.ink}
                  />
                </Group>
              );
            })}
            {line.length > 1 && (
              <>
                <Arrow
                  points={line.flatMap((p) => [px(p.x), px(p.y)])}
                  stroke={paint.ink}
                  fill={paint.ink}
                  strokeWidth={2}
                  pointerLength={7}
                  pointerWidth={7}
                  lineJoin="round"
                  listening={false}
                />
                <Circle
                  x={px(line[0]?.x ?? 0)}
                  y={px(line[0]?.y ?? 0)}
                  radius={5}
                  stroke={paint.ink}
                  strokeWidth={2}
                  fill={paint.sheet}
                  listening={false}
                />
              </>
            )}
            {drawn.map((w, i) => (
              <WalkLine key={`${w.label} ${i}`} walk={w} px={px} ink={w.chosen ? paint.ink : paint.ink3} paper={paint.sheet} />
            ))}
            {draft.points.map((p) => (
              <Group
                key={p.code}
                x={px(p.x)}
                y={px(p.y)}
                draggable={editing}
                onDragEnd={(e) => {
                  const x = Math.min(draft.widthM, Math.max(0, snap(e.target.x() / scale, fine(e))));
                  const y = Math.min(draft.depthM, Math.max(0, snap(e.target.y() / scale, fine(e))));
                  e.target.position({ x: px(x), y: px(y) });
                  onPoint(p.code, x, y);
                }}
              >
                <Rect
                  x={-6}
                  y={-6}
                  width={12}
                  height={12}
                  fill={p.kind === 'dock' ? paint.ink : paint.sheet}
                  stroke={paint.ink}
                  strokeWidth={1.5}
                />
                <Label x={9} y={-8}>
                  <Tag fill={paint.sheet} opacity={0.92} />
                  <Text text={p.code} fontFamily={FONT} fontSize={11} padding={2} fill={paint.ink} />
                </Label>
              </Group>
            ))}
            {drawn.map((w, i) => (
              <WalkLabel key={`${w.label} ${i}`} walk={w} px={px} ink={w.chosen ? paint.ink : paint.ink3} paper={paint.sheet} />
            ))}
            {editing &&
              draft.shapes
                .filter((s) => s.key === selected)
                .flatMap((s) =>
                  (['from', 'to'] as const).map((end) => (
                    <Circle
                      key={`${s.key}/${end}`}
                      x={px(end === 'from' ? s.x : s.toX)}
                      y={px(end === 'from' ? s.y : s.toY)}
                      radius={8}
                      fill={paint.mark}
                      stroke={paint.ink}
                      strokeWidth={2}
                      draggable
                      onDragEnd={(e) => {
                        e.cancelBubble = true;
                        const at = { x: snap(e.target.x() / scale, fine(e)), y: snap(e.target.y() / scale, fine(e)) };
                        const next = ended(s, end, at, draft);
                        e.target.position({ x: px(end === 'from' ? next.x : next.toX), y: px(end === 'from' ? next.y : next.toY) });
                        onShape(next);
                      }}
                    />
                  )),
                )}
          </Layer>
        </Stage>
      )}
    </div>
  );
}

/** One walk: its line and, where it is chosen, a mark at each stop. */
function WalkLine({ walk, px, ink, paper }: { walk: PlanWalk; px: (m: number) => number; ink: string; paper: string }) {
  const points = walk.line.flatMap((p) => [px(p.x), px(p.y)]);
  const wide = walk.chosen ? 3 : 1.75;
  return (
    <Group listening={false}>
      <Arrow
        points={points}
        stroke={ink}
        fill={ink}
        strokeWidth={walk.double ? wide + 3 : wide}
        dash={walk.dash}
        pointerLength={6}
        pointerWidth={6}
        lineJoin="round"
      />
      {walk.double && <Line points={points} stroke={paper} strokeWidth={wide} lineJoin="round" />}
      {walk.chosen && walk.stops.map((p, i) => <Rect key={i} x={px(p.x) - 3.5} y={px(p.y) - 3.5} width={7} height={7} fill={ink} />)}
    </Group>
  );
}

/** Whose walk it is: where they are, else at its first stop. It lies over lines and places. */
function WalkLabel({ walk, px, ink, paper }: { walk: PlanWalk; px: (m: number) => number; ink: string; paper: string }) {
  const first = walk.here ?? walk.stops[0];
  return (
    <Group listening={false}>
      {walk.here && (
        <Circle x={px(walk.here.x)} y={px(walk.here.y)} radius={walk.chosen ? 6 : 5} fill={ink} stroke={paper} strokeWidth={1.5} />
      )}
      {first && (
        <Label x={px(first.x) + 5} y={px(first.y) - (walk.here ? 24 : 7)}>
          <Tag fill={walk.chosen ? ink : paper} stroke={ink} strokeWidth={1} />
          <Text text={walk.label} fontFamily={FONT} fontStyle="bold" fontSize={11} padding={2} fill={walk.chosen ? paper : ink} />
        </Label>
      )}
    </Group>
  );
}
