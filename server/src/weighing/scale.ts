import { connect } from 'node:net';
import type { ReadingDto } from './weighing.dto.js';

const TIMEOUT_MS = 2_000;
const MOST_BYTES = 200;
/** A line such as "2345 g steady" or "2345 g moving". */
const LINE = /^\s*(-?\d{1,7}) g (steady|moving)\s*$/;

/**
 * Asks the scale at `host:port` what lies on it: it is sent `W` and a line feed and answers with one line, grams and whether the weight has
 * settled. Rejects where it does not answer in time or with anything else.
 */
export function readScale(address: string): Promise<ReadingDto> {
  const [host = '127.0.0.1', port = '4792'] = address.split(':');
  return new Promise((resolve, reject) => {
    let said = '';
    const socket = connect({ host, port: Number(port) }, () => socket.write('W\n'));
    socket.setTimeout(TIMEOUT_MS, () => socket.destroy(new Error('The scale does not answer')));
    socket.on('error', reject);
    socket.on('close', () => reject(new Error('The scale hung up without an answer')));
    socket.on('data', (part) => {
      said += part.toString('latin1');
      if (!said.includes('\n') && said.length < MOST_BYTES) return;
      const [, grams, word] = LINE.exec(said.split('\n')[0] ?? '') ?? [];
      if (grams === undefined) reject(new Error('The scale answers with something that is no weight'));
      else resolve({ grams: Number(grams), isSteady: word === 'steady' });
      socket.destroy();
    });
  });
}
