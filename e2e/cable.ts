import { createServer, connect, type Server, type Socket } from 'node:net';
import { once } from 'node:events';

/** A network cable that can be pulled: a way to a port of this machine, for browsers that must see a real loss of it. */
export class Cable {
  private readonly sockets = new Set<Socket>();
  private pulled = false;
  private constructor(private readonly server: Server) {}

  static async lay(from: number, to: number): Promise<Cable> {
    const server = createServer();
    const cable = new Cable(server);
    server.on('connection', (near) => cable.join(near, to));
    server.listen(from, '127.0.0.1');
    await once(server, 'listening');
    return cable;
  }

  private join(near: Socket, to: number): void {
    if (this.pulled) return void near.destroy();
    const far = connect(to, '127.0.0.1');
    for (const [end, other] of [
      [near, far],
      [far, near],
    ] as const) {
      this.sockets.add(end);
      end.on('error', () => other.destroy());
      end.on('close', () => {
        this.sockets.delete(end);
        other.destroy();
      });
    }
    near.pipe(far).pipe(near);
  }

  pull(): void {
    this.pulled = true;
    for (const socket of this.sockets) socket.destroy();
  }

  plugIn(): void {
    this.pulled = false;
  }

  async remove(): Promise<void> {
    this.pull();
    this.server.close();
    await once(this.server, 'close');
  }
}
