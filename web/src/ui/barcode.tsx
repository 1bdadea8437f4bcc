import { code128, drawingSVG, qrcode } from 'bwip-js/browser';
import { useMemo } from 'react';

/** A Code 128 that scanners read off the screen, with its text beneath. */
export function Barcode({ code, width = 150, height = 26 }: { code: string; width?: number; height?: number }) {
  const source = useMemo(() => {
    const svg = code128({ bcid: 'code128', text: code, height: 10, includetext: false }, drawingSVG());
    return `data:image/svg+xml;utf8,${encodeURIComponent(svg.replace('<svg ', '<svg preserveAspectRatio="none" '))}`;
  }, [code]);
  return (
    <span className="bars">
      <img src={source} width={width} height={height} alt={`Barcode ${code}`} style={{ width, height }} />
      <span className="code">{code}</span>
    </span>
  );
}

/** A QR code that a phone's camera reads off the screen. */
export function QrCode({ text, size, says }: { text: string; size: number; says: string }) {
  const source = useMemo(
    () => `data:image/svg+xml;utf8,${encodeURIComponent(qrcode({ bcid: 'qrcode', text, padding: 2 }, drawingSVG()))}`,
    [text],
  );
  return <img src={source} width={size} height={size} alt={says} style={{ width: size, height: size, background: 'white' }} />;
}
