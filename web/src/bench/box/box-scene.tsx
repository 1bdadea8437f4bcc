import type { Placement, Size } from '@vectrum/core/cartons';
import { useEffect, useRef, useState } from 'react';
import { BoxDrawing, type Look, type Mark } from './scene';

const WIDTH = 320;
const HEIGHT = 215;

/** A box from its corner and what lies in it; each unit bears the number of its line. `onNone` where the device cannot draw it. */
export default function BoxScene({
  inner,
  units,
  says,
  numberOf,
  onNone,
}: {
  inner: Size;
  units: readonly (Placement & { look: Look })[];
  says: string;
  numberOf: (good: number) => number;
  onNone: () => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawing = useRef<BoxDrawing | null>(null);
  const [marks, setMarks] = useState<Mark[]>([]);
  const [l, w, h] = inner;
  useEffect(() => {
    if (!canvas.current) return;
    try {
      drawing.current = new BoxDrawing(canvas.current, [l, w, h], WIDTH, HEIGHT);
    } catch {
      onNone();
    }
    return () => {
      drawing.current?.end();
      drawing.current = null;
    };
  }, [l, w, h, onNone]);
  useEffect(() => {
    if (drawing.current) setMarks(drawing.current.show(units));
  }, [units, l, w, h]);
  return (
    <div className="box-scene" role="img" aria-label={says}>
      <canvas ref={canvas} width={WIDTH} height={HEIGHT} />
      {marks.map((m, i) => (
        <b key={i} style={{ left: m.x, top: m.y }}>
          {numberOf(m.good)}
        </b>
      ))}
    </div>
  );
}
