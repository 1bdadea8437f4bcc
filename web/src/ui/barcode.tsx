import { useEffect, useState } from 'react';
import type { Drawing } from './draw-barcode';

/** A drawing as the source of a picture; empty until it is drawn. Drawing is read when the first code is shown. */
function useDrawing(kind: Drawing, text: string): string {
  const [source, setSource] = useState('');
  useEffect(() => {
    let gone = false;
    void import('./draw-barcode').then(({ draw }) => {
      if (!gone) setSource(draw(kind, text));
    });
    return () => {
      gone = true;
    };
  }, [kind, text]);
  return source;
}

/** A Code 128 that scanners read off the screen, with its text beneath. */
export function Barcode({ code, width = 150, height = 26 }: { code: string; width?: number; height?: number }) {
  const source = useDrawing('code128', code);
  return (
    <span className="bars">
      <span style={{ width, height }}>
        {source && <img src={source} width={width} height={height} alt={`Barcode ${code}`} style={{ width, height }} />}
      </span>
      <span className="code">{code}</span>
    </span>
  );
}

/** A QR code that a phone's camera reads off the screen. */
export function QrCode({ text, size, says }: { text: string; size: number; says: string }) {
  const source = useDrawing('qrcode', text);
  return (
    <span style={{ display: 'block', width: size, height: size, background: 'white' }}>
      {source && <img src={source} width={size} height={size} alt={says} style={{ width: size, height: size }} />}
    </span>
  );
}

/** A code of any kind at a size of its own. */
export function CardDrawing({
  kind,
  text,
  width,
  height,
  says,
}: {
  kind: Drawing;
  text: string;
  width: number;
  height: number;
  says: string;
}) {
  const source = useDrawing(kind, text);
  return (
    <span style={{ display: 'block', width, height, background: 'white' }}>
      {source && <img src={source} width={width} height={height} alt={says} style={{ width, height }} />}
    </span>
  );
}
