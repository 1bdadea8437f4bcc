import { Injectable } from '@nestjs/common';
import type { Response } from 'express';
import { PassThrough } from 'node:stream';
import { DataSource } from 'typeorm';
import yazl from 'yazl';
import { notFound, type Person, rows, siteDay } from '../platform/index.js';
import { type FileKind, MEDIA_TYPES, type OutCell, writeTable } from './files/write.js';
import { Folders } from './folders.js';
import { Lists, type Table } from './lists.js';
import { Shapes } from './registry.js';
import type { Cells, Column } from './shape.js';

async function* inOrder(rows: AsyncIterable<Cells>, columns: readonly Column[]): AsyncGenerator<OutCell[]> {
  for await (const row of rows) yield columns.map((c) => row[c.key] ?? '');
}

/** Gives data out as files: what a list shows, everything of one kind, or everything. */
@Injectable()
export class ExportsService {
  constructor(
    private readonly source: DataSource,
    private readonly shapes: Shapes,
    private readonly lists: Lists,
    private readonly folders: Folders,
  ) {}

  /** Everything of one kind, as it would be taken in again. */
  async shape(person: Person, kind: string): Promise<Table> {
    const shape = this.shapes.of(kind);
    if (!person.rights.has(shape.right)) throw notFound(`A file of ${kind}`);
    const columns = await shape.columns(this.source, person);
    return { name: kind, heads: columns.map((c) => c.label), rows: inOrder(shape.read(this.source, person), columns) };
  }

  list(person: Person, name: string, query: Record<string, string>): Promise<Table> {
    return this.lists.table(person, name, query);
  }

  /** Sends a table as it is read; memory is bounded whatever its length. */
  async send(response: Response, table: Table, kind: FileKind): Promise<void> {
    response.setHeader('content-type', MEDIA_TYPES[kind]);
    response.setHeader('content-disposition', `attachment; filename="${table.name}.${kind}"`);
    response.setHeader('cache-control', 'no-store');
    await writeTable[kind](response, table.heads, table.rows);
    response.end();
  }

  /** The figures of the moment for other programs: each list that belongs to a day and that the person may read, as CSV in one archive. */
  async sendDay(response: Response, person: Person): Promise<void> {
    const sites = await rows<{ id: number; code: string }>(this.source, 'SELECT id, code FROM site WHERE id IN (?) ORDER BY id', [
      [0, ...person.siteIds],
    ]);
    const { today } = await siteDay(this.source, null);
    const parts = this.lists
      .ofTheDay(person)
      .flatMap(({ name, daily, with: query = {} }) =>
        daily === 'house'
          ? [{ file: name, name, query }]
          : sites.map((s) => ({ file: `${name}-${s.code}`, name, query: { ...query, site: String(s.id) } })),
      );
    response.setHeader('content-type', 'application/zip');
    response.setHeader('content-disposition', `attachment; filename="figures-${today}.zip"`);
    response.setHeader('cache-control', 'no-store');
    const zip = new yazl.ZipFile();
    zip.outputStream.pipe(response);
    for (const { file, name, query } of parts) await this.addTable(zip, `${file}.csv`, await this.list(person, name, query));
    zip.end();
  }

  /** Writes a table into an archive as it is read. */
  private async addTable(zip: yazl.ZipFile, file: string, table: Table): Promise<void> {
    const part = new PassThrough();
    zip.addReadStream(part, file, { mtime: new Date(0) });
    await writeTable.csv(part, table.heads, table.rows);
    part.end();
  }

  /**
   * Every kind that this person may take in, as CSV files in one archive, numbered in the order in which to take them in, and
   * whatever is no table, in folders behind them.
   */
  async sendAll(response: Response, person: Person): Promise<void> {
    response.setHeader('content-type', 'application/zip');
    response.setHeader('content-disposition', 'attachment; filename="everything.zip"');
    response.setHeader('cache-control', 'no-store');
    const zip = new yazl.ZipFile();
    zip.outputStream.pipe(response);
    for (const [i, shape] of this.shapes.all.filter((s) => person.rights.has(s.right)).entries()) {
      await this.addTable(zip, `${String(i + 1).padStart(2, '0')}-${shape.kind}.csv`, await this.shape(person, shape.kind));
    }
    for (const folder of this.folders.all.filter((f) => person.rights.has(f.right))) {
      for await (const { name, bytes } of folder.files()) {
        const part = new PassThrough();
        // Pictures are packed already.
        zip.addReadStream(part, `${folder.name}/${name}`, { mtime: new Date(0), compress: false });
        await new Promise<void>((sent) => part.end(bytes, sent));
      }
    }
    zip.end();
  }
}
