import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { faultsOf, sampleRecord, type LabelDesign, type LabelElement } from '@vectrum/core/labels';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  insert,
  mustBeAt,
  mustMatch,
  NEXT,
  notFound,
  num,
  one,
  parsed,
  type Person,
  remove,
  rows,
  type Tx,
  Fault,
  task,
  update,
  Work,
} from '../platform/index.js';
import { keepSetting } from '../settings/index.js';
import type { labelsPdf } from './label.pdf.js';
import { LabelRecords } from './label-records.js';
import type {
  DesignDto,
  EditDesignDto,
  EditPrinterDto,
  LabelElementDto,
  PrintedDto,
  PrinterDto,
  PrintLabelsDto,
  TrayRowDto,
} from './labels.dto.js';
import { PrintQueue } from './print-queue.js';
import { STANDARD_DESIGNS } from './standard-designs.js';

/** Of what was printed, so many are looked back at. */
const NEWEST_PRINTED = 200;
const LABELS = task<typeof labelsPdf>('printing/labelsPdf', 120_000, 'These labels take too long to draw. Print fewer at once');

/** Label designs, what is printed with them, and the tray of what was sent to printers. */
@Injectable()
export class LabelsService implements OnApplicationBootstrap {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly records: LabelRecords,
    private readonly queue: PrintQueue,
    private readonly activity: ActivityService,
    private readonly work: Work,
  ) {}

  /** A new house begins with the standard designs; one that has thrown them all out does not get them back. */
  async onApplicationBootstrap(): Promise<void> {
    if (!this.source.isInitialized) return;
    if (await one(this.source, `SELECT name FROM setting WHERE name = 'designs'`)) return;
    await this.source.query('INSERT IGNORE INTO label_design (name, subject, media, elements) VALUES ?', [
      STANDARD_DESIGNS.map((d) => [d.name, d.subject, JSON.stringify(d.media), JSON.stringify(d.elements)]),
    ]);
    await keepSetting(this.source, 'designs', true);
  }

  async designs(): Promise<DesignDto[]> {
    const found = await rows<DesignDto & { media: unknown; elements: unknown }>(
      this.source,
      'SELECT id, name, subject, media, elements, version FROM label_design ORDER BY subject, name',
    );
    return found.map((d) => ({ ...d, media: parsed<DesignDto['media']>(d.media), elements: parsed<LabelElementDto[]>(d.elements) }));
  }

  add(act: Act, input: EditDesignDto): Promise<{ id: number }> {
    return this.commands.run(act, 'design.add', input, async (tx) => {
      const design = sound(input);
      await this.mustBeFree(tx, input.name, 0);
      const made = await insert(tx, 'label_design', {
        name: input.name.trim(),
        subject: input.subject,
        media: JSON.stringify(design.media),
        elements: JSON.stringify(design.elements),
      });
      await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title: `Label ${input.name.trim()} designed` });
      return { id: made };
    });
  }

  edit(act: Act, id: number, version: number, input: EditDesignDto): Promise<void> {
    return this.commands.run(act, 'design.edit', { id, version, input }, async (tx) => {
      const kept = await one<{ version: number; subject: string }>(
        tx,
        'SELECT version, subject FROM label_design WHERE id = ? FOR UPDATE',
        [id],
      );
      if (!kept) throw notFound('That label');
      mustMatch(kept.version, version);
      const design = sound(input);
      await this.mustBeFree(tx, input.name, id);
      await update(
        tx,
        'label_design',
        { id },
        {
          name: input.name.trim(),
          subject: input.subject,
          media: JSON.stringify(design.media),
          elements: JSON.stringify(design.elements),
          version: NEXT,
        },
      );
      await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title: `Label ${input.name.trim()} changed` });
    });
  }

  drop(act: Act, id: number): Promise<void> {
    return this.commands.run(act, 'design.drop', { id }, async (tx) => {
      if ((await remove(tx, 'label_design', { id })) === 0) throw notFound('That design');
      await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title: 'A label design thrown out' });
    });
  }

  /** A design as it would be printed, with samples in its fields; it need not have been kept. */
  sample(input: EditDesignDto): Promise<Buffer> {
    const design = sound(input);
    return this.work.run(LABELS, design, [sampleRecord(design.subject)]);
  }

  async pdf(person: Person, input: PrintLabelsDto): Promise<Buffer> {
    const design = await this.design(input.designId);
    const records = await this.records.of(person, design.subject, input.labels);
    return this.work.run(LABELS, design, records, input.copies, input.start).catch(asForm);
  }

  /** Prints labels: the paper is made now, and reaches the printer through the outbox. */
  async print(act: Act, input: PrintLabelsDto): Promise<PrintedDto> {
    const design = await this.design(input.designId);
    const pdf = await this.pdf(act.person, input);
    const labels = input.labels.length * input.copies;
    return this.commands.run(act, 'labels.print', input, async (tx) => {
      const first = input.labels[0]?.code ?? '';
      const title = `${labels === 1 ? '1 label' : `${labels} labels`}: ${first}${input.labels.length > 1 ? ` and ${input.labels.length - 1} more` : ''}`;
      return this.queue.add(tx, act, input.printerId ?? 0, { title, about: design.name, pages: labels, pdf, document: null });
    });
  }

  /** What was sent to the printers of a person's sites: what waits first, then the newest. */
  async tray(siteIds: readonly number[]): Promise<TrayRowDto[]> {
    const found = await rows<TrayRowDto>(
      this.source,
      `SELECT o.id, COALESCE(j.title, CONCAT('Parcel label ', JSON_VALUE(o.payload, '$.parcel'))) AS title, COALESCE(p.name, s.name) AS printer, COALESCE(j.labels, 1) AS labels,
         o.state, o.attempts, o.last_error AS problem, w.name AS who, o.created_at AS at
       FROM (SELECT id FROM outbox WHERE kind IN ('print.job','print.label') AND state <> 'done'
         UNION (SELECT id FROM outbox WHERE kind = 'print.job' AND state = 'done' ORDER BY id DESC LIMIT ${NEWEST_PRINTED})
         UNION (SELECT id FROM outbox WHERE kind = 'print.label' AND state = 'done' ORDER BY id DESC LIMIT ${NEWEST_PRINTED})) n
         JOIN outbox o ON o.id = n.id LEFT JOIN print_job j ON o.kind = 'print.job' AND j.id = JSON_VALUE(o.payload, '$.job') LEFT JOIN printer p ON p.id = j.printer_id LEFT JOIN person w ON w.id = j.person_id
       LEFT JOIN site s ON o.kind = 'print.label' AND o.receiver = CONCAT('printer:site-', s.id)
       WHERE COALESCE(p.site_id, s.id) IN (?) ORDER BY o.state = 'done', o.id DESC LIMIT 60`,
      [[0, ...siteIds]],
    );
    return found.map((t) => ({ ...t, labels: num(t.labels) }));
  }

  printers(siteIds: readonly number[]): Promise<PrinterDto[]> {
    return rows<PrinterDto>(
      this.source,
      'SELECT p.id, p.name, p.site_id AS siteId, s.name AS site, p.address, p.version FROM printer p JOIN site s ON s.id = p.site_id WHERE p.site_id IN (?) ORDER BY s.id, p.id',
      [[0, ...siteIds]],
    );
  }

  /** Sets a printer up, or changes the one with that number from the version that was seen. */
  keepPrinter(act: Act, id: number | null, version: number, input: EditPrinterDto): Promise<{ id: number }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'printer', { id, version, input }, async (tx) => {
      const twin = await one<{ id: number }>(tx, 'SELECT id FROM printer WHERE site_id = ? AND name = ? AND id <> ?', [
        input.siteId,
        input.name.trim(),
        id ?? 0,
      ]);
      if (twin) throw badForm({ name: 'There is a printer of that name at this site' });
      await this.activity.record(tx, act, {
        kind: 'setup',
        glyph: 'full',
        title: `Printer ${input.name.trim()} ${id ? 'changed' : 'set up'}`,
        siteId: input.siteId,
      });
      if (id === null) {
        const made = await insert(tx, 'printer', { name: input.name.trim(), site_id: input.siteId, address: input.address });
        return { id: made };
      }
      const kept = await one<{ site_id: number; version: number }>(tx, 'SELECT site_id, version FROM printer WHERE id = ? FOR UPDATE', [
        id,
      ]);
      if (!kept) throw notFound('That printer');
      mustBeAt(act.person, kept.site_id);
      mustMatch(kept.version, version);
      await update(tx, 'printer', { id }, { name: input.name.trim(), site_id: input.siteId, address: input.address, version: NEXT });
      return { id };
    });
  }

  private async design(id: number): Promise<LabelDesign> {
    const kept = (await this.designs()).find((d) => d.id === id);
    if (!kept) throw notFound('That label');
    return kept as unknown as LabelDesign;
  }

  private async mustBeFree(tx: Tx, name: string, id: number): Promise<void> {
    if (await one(tx, 'SELECT id FROM label_design WHERE name = ? AND id <> ?', [name.trim(), id]))
      throw badForm({ name: 'There is a label of that name. Choose another' });
  }
}

/** A design whose every element is whole and printable; refuses one that is not. */
function sound(input: EditDesignDto): LabelDesign {
  const design: LabelDesign = {
    name: input.name.trim(),
    subject: input.subject,
    media: { ...input.media },
    elements: input.elements.map(whole),
  };
  const faults = faultsOf(design);
  if (faults.length > 0) throw badForm({ elements: faults.slice(0, 4).join('. ') });
  return design;
}

function whole(e: LabelElementDto): LabelElement {
  const box = { id: e.id, xMm: e.xMm, yMm: e.yMm, wMm: e.wMm, hMm: e.hMm };
  switch (e.kind) {
    case 'text':
      return { ...box, kind: 'text', text: e.text ?? '', align: e.align ?? 'left', bold: e.bold ?? false, mono: e.mono ?? false };
    case 'barcode':
      return { ...box, kind: 'barcode', value: e.value ?? '', symbology: e.symbology ?? 'code-128', withText: e.withText ?? false };
    case 'arrow':
      return { ...box, kind: 'arrow', direction: e.direction ?? 'by-level' };
    case 'box':
      return { ...box, kind: 'box' };
  }
}

function asForm(thrown: unknown): never {
  if (thrown instanceof Fault && thrown.of === 'RangeError') throw badForm({ start: thrown.message });
  throw thrown;
}
