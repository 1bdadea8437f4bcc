import { useEffect, useRef } from 'react';
import SignaturePad from 'signature_pad';

/** The field that a signature is kept in, whatever the width of the screen. */
const WIDE = 600;
const HIGH = 200;
/** A signature of more points than this is a scribble; its end is dropped. */
const MOST_POINTS = 1_800;

const whole = (n: number, most: number) => Math.min(most, Math.max(0, Math.round(n)));

/** What was drawn, as absolute moves and lines in the field. */
function pathOf(pad: SignaturePad, canvas: HTMLCanvasElement): string {
  const { width, height } = canvas.getBoundingClientRect();
  const points = pad.toData().flatMap((stroke) => stroke.points.map((p, i) => ({ ...p, pen: i === 0 ? 'M' : 'L' })));
  return points
    .slice(0, MOST_POINTS)
    .map((p) => `${p.pen}${whole((p.x / width) * WIDE, WIDE)} ${whole((p.y / height) * HIGH, HIGH)}`)
    .join('');
}

/** A field to sign in, by finger, pen or mouse. `onDrawn` hears the whole drawing after each stroke. */
export function PenField({ onDrawn }: { onDrawn: (path: string) => void }) {
  const field = useRef<HTMLCanvasElement>(null);
  const heard = useRef(onDrawn);
  useEffect(() => {
    heard.current = onDrawn;
  });
  useEffect(() => {
    const canvas = field.current;
    if (!canvas) return;
    const { width, height } = canvas.getBoundingClientRect();
    const sharp = window.devicePixelRatio;
    canvas.width = width * sharp;
    canvas.height = height * sharp;
    canvas.getContext('2d')?.scale(sharp, sharp);
    const pad = new SignaturePad(canvas, { penColor: '#141e32', minWidth: 1.4, maxWidth: 3.2 });
    const told = () => heard.current(pathOf(pad, canvas));
    pad.addEventListener('endStroke', told);
    return () => {
      pad.removeEventListener('endStroke', told);
      pad.off();
    };
  }, []);
  return <canvas ref={field} className="pen" aria-label="Sign here" role="img" />;
}
