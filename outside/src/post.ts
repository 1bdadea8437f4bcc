import { writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:net';
import { join } from 'node:path';
import { SMTPServer } from 'smtp-server';
import type { Suppliers } from './suppliers.js';
import { behave, type KeptMail, type WorldState } from './state.js';

const MOST_KEPT = 200;

/** Takes every mail and keeps it; nothing is delivered, but suppliers' systems read the XML that comes with an order. */
export function mailServer(state: WorldState, suppliers: Suppliers): SMTPServer {
  return new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    logger: false,
    onData(stream, _session, done) {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        behave(state.world.manners.mail)
          .then(() => {
            const raw = Buffer.concat(parts).toString('utf8');
            state.world.mails.push(readMail(raw));
            for (const xml of xmlIn(raw)) suppliers.hear(xml);
            state.world.mails.splice(0, state.world.mails.length - MOST_KEPT);
            state.changed();
            done(null);
          })
          .catch((thrown: Error) => done(thrown));
      });
    },
  });
}

function header(raw: string, name: string): string {
  const found = new RegExp(`^${name}: *((?:.*)(?:\\r?\\n[ \\t].*)*)`, 'im').exec(raw)?.[1] ?? '';
  return found
    .replace(/\r?\n[ \t]+/g, ' ')
    .replace(/=\?utf-8\?q\?(.*?)\?=/gi, (_, text: string) => quoted(text.replace(/_/g, ' ')))
    .trim();
}

function quoted(text: string): string {
  const bytes = text.replace(/=\r?\n/g, '').replace(/=([0-9A-F]{2})/gi, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)));
  return Buffer.from(bytes, 'latin1').toString('utf8');
}

/** Enough of a mail to show it: headers, the plain text, the names of what is attached. */
export function readMail(raw: string): KeptMail {
  const text = /Content-Type: text\/plain[\s\S]*?\r?\n\r?\n([\s\S]*?)(?:\r?\n--|$)/i.exec(raw)?.[1] ?? '';
  return {
    at: new Date().toISOString(),
    id: header(raw, 'Message-ID'),
    to: header(raw, 'To'),
    subject: header(raw, 'Subject'),
    text: /quoted-printable/i.test(raw) ? quoted(text) : text,
    attachments: [...raw.matchAll(/filename="?([^"\r\n;]+)"?/gi)].map((m) => m[1] ?? ''),
  };
}

/** The XML files attached to a mail. */
export function xmlIn(raw: string): string[] {
  const boundary = /boundary="?([^"\r\n;]+)"?/i.exec(raw)?.[1];
  if (!boundary) return [];
  return raw
    .split(`--${boundary}`)
    .filter((part) => /filename="?[^"\r\n]+\.xml"?/i.test(part) && /base64/i.test(part))
    .map((part) => Buffer.from(part.slice(part.search(/\r?\n\r?\n/)), 'base64').toString('utf8'));
}

/** A scale on a TCP port: it is asked with `W` and says what lies on it, "2345 g steady". */
export function scale(state: WorldState): Server {
  return createServer((socket) => {
    socket.on('error', () => socket.destroy());
    socket.on('data', () => {
      behave(state.world.manners.scale)
        .then(() => socket.end(`${state.world.onScaleG} g ${state.world.onScaleG === 0 ? 'moving' : 'steady'}\n`))
        .catch(() => socket.resetAndDestroy());
    });
  });
}

/** A printer on a raw TCP port: one connection, one paper. */
export function printer(state: WorldState): Server {
  return createServer({ allowHalfOpen: true }, (socket) => {
    const parts: Buffer[] = [];
    socket.on('data', (part: Buffer) => parts.push(part));
    socket.on('error', () => socket.destroy());
    socket.on('end', () => {
      behave(state.world.manners.printer)
        .then(() => {
          const paper = Buffer.concat(parts);
          if (paper.subarray(0, 5).toString('latin1') === '%PDF-') {
            const file = `paper-${String(state.world.papers.length + 1).padStart(4, '0')}.pdf`;
            writeFileSync(join(state.dir, 'papers', file), paper);
            state.world.papers.push({ at: new Date().toISOString(), bytes: paper.length, file });
            state.changed();
          }
          socket.end();
        })
        .catch(() => socket.resetAndDestroy());
    });
  });
}
