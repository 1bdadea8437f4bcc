import { createServer, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';

export interface Heard {
  method: string;
  path: string;
  headers: IncomingMessage['headers'];
  body: string;
}

export interface Answer {
  status: number;
  body: unknown;
}

/** A stand-in for shops and carriers inside one test: remembers what it heard and answers as it is told. */
export class OutsideWorld {
  readonly heard: Heard[] = [];
  /** Answers by the beginning of "METHOD path"; the first that fits. Absent: 200 with an empty object. */
  answers: Record<string, (heard: Heard) => Answer | Promise<Answer>> = {};

  private constructor(
    private readonly server: Server,
    readonly url: string,
  ) {}

  static async open(): Promise<OutsideWorld> {
    const opened: { world?: OutsideWorld } = {};
    const server = createServer((request, response) => {
      const parts: Buffer[] = [];
      request.on('data', (part: Buffer) => parts.push(part));
      request.on('end', () => {
        const heard = {
          method: request.method ?? '',
          path: request.url ?? '',
          headers: request.headers,
          body: Buffer.concat(parts).toString(),
        };
        opened.world?.heard.push(heard);
        const answer = Object.entries(opened.world?.answers ?? {}).find(([start]) =>
          `${heard.method} ${heard.path}`.startsWith(start),
        )?.[1](heard);
        void Promise.resolve(answer).then((said) =>
          response.writeHead(said?.status ?? 200, { 'content-type': 'application/json' }).end(JSON.stringify(said?.body ?? {})),
        );
      });
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const world = new OutsideWorld(server, `http://127.0.0.1:${(server.address() as AddressInfo).port}`);
    opened.world = world;
    return world;
  }

  /** What was heard at paths that hold a text. */
  at(text: string): Heard[] {
    return this.heard.filter((h) => h.path.includes(text));
  }

  close(): Promise<void> {
    this.server.closeAllConnections();
    return new Promise((done) => this.server.close(() => done()));
  }
}
