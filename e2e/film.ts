import { closeSync, openSync, readFileSync, writeSync } from 'node:fs';
import { createRequire } from 'node:module';
import { prepareZXingModule, writeBarcode, type WriterOptions } from 'zxing-wasm/writer';

/** One label held before a camera. */
export interface Label {
  text: string;
  format: NonNullable<WriterOptions['format']>;
  gs1?: boolean;
}

const WIDTH = 640;
const HEIGHT = 480;
const FRAMES_A_SECOND = 5;
const SHOWN = 6;
const GONE = 4;
const LEAD = 10;
const PAPER = 225;
const INK = 25;

const wasm = readFileSync(createRequire(import.meta.url).resolve('zxing-wasm/writer/zxing_writer.wasm'));
prepareZXingModule({ overrides: { wasmBinary: wasm.buffer } });

/** The grey picture of a label, drawn as large as the camera's aim takes. */
async function pictureOf({ text, format, gs1 }: Label): Promise<Buffer> {
  const { symbol, error } = await writeBarcode(text, { format, ...(gs1 ? { options: 'gs1' } : {}) });
  if (!symbol) throw new Error(error);
  const { data, width, height } = symbol;
  const flat = height === 1 || width / height > 2;
  const module = Math.max(2, Math.floor(Math.min(480 / width, flat ? Infinity : 220 / height)));
  const tall = flat ? 160 : module * height;
  const [left, top] = [Math.floor((WIDTH - module * width) / 2), Math.floor((HEIGHT - tall) / 2)];
  const picture = Buffer.alloc(WIDTH * HEIGHT, PAPER);
  for (let y = 0; y < tall; y++)
    for (let x = 0; x < module * width; x++) {
      const row = flat ? Math.floor((y * height) / tall) : Math.floor(y / module);
      if (data[row * width + Math.floor(x / module)] === 0) picture[(top + y) * WIDTH + left + x] = INK;
    }
  return picture;
}

/** Writes an uncompressed film in which labels are held before the camera one after another. Chromium takes it for a camera. */
export async function filmOf(file: string, labels: readonly Label[]): Promise<void> {
  const grey = Buffer.alloc((WIDTH * HEIGHT) / 2, 128);
  const blank = Buffer.alloc(WIDTH * HEIGHT, PAPER);
  const out = openSync(file, 'w');
  const frames = (picture: Buffer, count: number) => {
    for (let n = 0; n < count; n++) for (const part of ['FRAME\n', picture, grey]) writeSync(out, part as Buffer);
  };
  writeSync(out, `YUV4MPEG2 W${WIDTH} H${HEIGHT} F${FRAMES_A_SECOND}:1 Ip A1:1 C420\n`);
  frames(blank, LEAD);
  for (const label of labels) {
    frames(await pictureOf(label), SHOWN);
    frames(blank, GONE);
  }
  closeSync(out);
}
