import { Injectable } from '@nestjs/common';
import { ActivityService } from '../activity/index.js';
import { type Act, badState, insert, one, Outbox, type Tx } from '../platform/index.js';
import type { PrintedDto } from './labels.dto.js';

/** What waits for printers: each job reaches its printer through the outbox, and is seen in the tray until it has. */
@Injectable()
export class PrintQueue {
  constructor(
    private readonly outbox: Outbox,
    private readonly activity: ActivityService,
  ) {}

  /** `printerId` 0: the printer of the device, or the first of the person's sites. */
  async add(
    tx: Tx,
    act: Act,
    printerId: number,
    job: { title: string; about: string; pages: number; pdf: Buffer; document: string | null },
  ): Promise<PrintedDto> {
    const printer = await this.printerFor(tx, act, printerId);
    const made = await insert(tx, 'print_job', {
      printer_id: printer.id,
      title: job.title,
      labels: job.pages,
      pdf: job.pdf,
      person_id: act.person.id,
    });
    await this.outbox.send(tx, `printer:${printer.id}`, 'print.job', { job: made }, { siteId: printer.site_id });
    await this.activity.record(tx, act, {
      kind: 'print',
      glyph: 'print',
      title: job.title,
      detail: [job.about, `at ${printer.name}`].filter(Boolean).join(', '),
      document: job.document,
      siteId: printer.site_id,
    });
    return { job: made, printer: printer.name };
  }

  private async printerFor(tx: Tx, act: Act, id: number): Promise<{ id: number; name: string; site_id: number }> {
    const printer = await one<{ id: number; name: string; site_id: number }>(
      tx,
      `SELECT p.id, p.name, p.site_id FROM printer p LEFT JOIN device d ON d.id = ? AND d.printer_id = p.id
       WHERE p.site_id IN (?) AND (? = 0 OR p.id = ?) ORDER BY d.id IS NULL, FIELD(p.site_id, ?), p.id LIMIT 1`,
      [act.deviceId ?? 0, [0, ...act.person.siteIds], id, id, [0, ...act.person.siteIds]],
    );
    if (printer) return printer;
    throw badState(
      id === 0
        ? 'There is no printer at your sites. Add one in Setup, Printers, or take it as a PDF'
        : 'That printer is at none of your sites. Choose another, or take it as a PDF',
    );
  }
}
