import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import type { IncomingMessage } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Problem } from '../../platform/index.js';
import { MOST_FILE_BYTES } from './limits.js';

/** A request's body as a file of its own, for as long as `work` takes. Refuses one that is too large. */
export async function withFile<T>(request: IncomingMessage, work: (path: string, hash: string, head: Buffer) => Promise<T>): Promise<T> {
  const dir = await mkdtemp(join(tmpdir(), 'vectrum-import-'));
  const path = join(dir, 'file');
  const hash = createHash('sha256');
  let size = 0;
  let head = Buffer.alloc(0);
  const meter = new Transform({
    transform(part: Buffer, _, next) {
      size += part.length;
      hash.update(part);
      if (head.length < 4) head = Buffer.concat([head, part.subarray(0, 4)]);
      next(
        size > MOST_FILE_BYTES
          ? new Problem(413, 'too-large', `A file may have up to ${MOST_FILE_BYTES / 1024 / 1024} MB. Part it into several`)
          : null,
        part,
      );
    },
  });
  try {
    await pipeline(request, meter, createWriteStream(path));
    return await work(path, hash.digest('hex'), head);
  } finally {
    await rm(dir, { recursive: true, force: true });
  }
}
