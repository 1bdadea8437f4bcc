import { prepareZXingModule, readBarcodes, type ReaderOptions, type ReadResult } from 'zxing-wasm/reader';
import wasmUrl from 'zxing-wasm/reader/zxing_reader.wasm?url';
import type { SeenCode } from './aim';

/** One picture of the camera, cut to where one aims. */
export interface PictureIn {
  bitmap: ImageBitmap;
}
export interface CodesOut {
  seen: SeenCode[];
  /** Set where pictures cannot be read at all. */
  fault?: string;
}

interface NativeCode {
  rawValue: string;
  format: string;
  boundingBox: DOMRectReadOnly;
}
interface NativeDetector {
  detect(bitmap: ImageBitmap): Promise<NativeCode[]>;
}
type NativeClass = { new (options: { formats: string[] }): NativeDetector; getSupportedFormats(): Promise<string[]> };

const OPTIONS: ReaderOptions = {
  formats: ['EAN13', 'EAN8', 'UPCA', 'UPCE', 'Code128', 'Code39', 'ITF', 'QRCode', 'DataMatrix', 'DataBar', 'DataBarExpanded'],
  tryHarder: true,
  tryRotate: true,
  tryInvert: false,
  maxNumberOfSymbols: 4,
  textMode: 'Plain',
};
/** Kinds that say no more than a number: the browser's own detector reads these fully. Others may hold separators that it loses. */
const PLAIN: ReadonlySet<string> = new Set(['ean_13', 'ean_8', 'upc_a', 'upc_e']);

prepareZXingModule({ overrides: { locateFile: (path: string, prefix: string) => (path.endsWith('.wasm') ? wasmUrl : prefix + path) } });

const native: Promise<NativeDetector | undefined> = (async () => {
  const found = (globalThis as { BarcodeDetector?: NativeClass }).BarcodeDetector;
  const formats = (await found?.getSupportedFormats().catch(() => [])) ?? [];
  return found && formats.includes('ean_13') ? new found({ formats }) : undefined;
})();

let canvas: OffscreenCanvas | undefined;

/** Element strings keep their separators and get the three characters that say so. */
const textOf = (code: ReadResult): string =>
  code.contentType === 'GS1' && code.symbologyIdentifier ? code.symbologyIdentifier + code.text : code.text;

async function fromPixels(bitmap: ImageBitmap): Promise<SeenCode[]> {
  canvas ??= new OffscreenCanvas(bitmap.width, bitmap.height);
  canvas.width = bitmap.width;
  canvas.height = bitmap.height;
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) return [];
  context.drawImage(bitmap, 0, 0);
  const found = await readBarcodes(context.getImageData(0, 0, bitmap.width, bitmap.height), OPTIONS);
  return found
    .filter((code) => code.isValid && code.text !== '')
    .map((code) => {
      const { topLeft, bottomRight } = code.position;
      return { text: textOf(code), x: (topLeft.x + bottomRight.x) / 2 / bitmap.width, y: (topLeft.y + bottomRight.y) / 2 / bitmap.height };
    });
}

async function read(bitmap: ImageBitmap): Promise<SeenCode[]> {
  const seen = await (await native)?.detect(bitmap).catch(() => undefined);
  if (seen?.length === 0) return [];
  if (!seen || seen.some((code) => !PLAIN.has(code.format))) return fromPixels(bitmap);
  return seen.map(({ rawValue, boundingBox: box }) => ({
    text: rawValue,
    x: (box.x + box.width / 2) / bitmap.width,
    y: (box.y + box.height / 2) / bitmap.height,
  }));
}

self.onmessage = async ({ data: { bitmap } }: MessageEvent<PictureIn>) => {
  try {
    self.postMessage({ seen: await read(bitmap) } satisfies CodesOut);
  } catch (thrown) {
    self.postMessage({ seen: [], fault: thrown instanceof Error ? thrown.message : String(thrown) } satisfies CodesOut);
  } finally {
    bitmap.close();
  }
};
