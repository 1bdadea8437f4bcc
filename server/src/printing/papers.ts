import { Injectable } from '@nestjs/common';
import { type Act, CommandLog, notFound, type Person } from '../platform/index.js';
import type { PrintedDto, PrintPaperDto } from './labels.dto.js';
import { PrintQueue } from './print-queue.js';

/** Draws a paper for somebody who may have it; refuses anybody else. */
type Draw = (person: Person, code: string) => Promise<Buffer>;

/** Papers that go to a printer: each module says which it draws. */
@Injectable()
export class Papers {
  private readonly kinds = new Map<string, { says: string; draw: Draw }>();

  constructor(
    private readonly commands: CommandLog,
    private readonly queue: PrintQueue,
  ) {}

  /** `says` is what the paper is called in the tray: "Invoice". */
  register(kind: string, says: string, draw: Draw): void {
    this.kinds.set(kind, { says, draw });
  }

  /** The paper is drawn now, as it stands, and waits for its printer. */
  async print(act: Act, input: PrintPaperDto): Promise<PrintedDto> {
    const kind = this.kinds.get(input.paper);
    if (!kind) throw notFound(`A paper called ${input.paper.slice(0, 20)}`);
    const code = input.code.trim().toUpperCase();
    const pdf = await kind.draw(act.person, code);
    return this.commands.run(act, 'paper.print', input, (tx) =>
      this.queue.add(tx, act, input.printerId, { title: `${kind.says} ${code}`, about: '', pages: 1, pdf, document: code }),
    );
  }
}
