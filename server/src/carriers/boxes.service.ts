import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  find,
  insert,
  mustBeAt,
  mustMatch,
  notFound,
  type Person,
  remove,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import type { BoxDto, BoxStockDto, EditBoxDto, NewBoxDto } from './carriers.dto.js';

/** The boxes that parcels are packed in: how large, how heavy, what they cost, how many are left at each site. */
@Injectable()
export class BoxesService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  async list(person: Person): Promise<BoxDto[]> {
    const [found, stock] = await Promise.all([
      rows<BoxDto & { cost: string }>(
        this.source,
        'SELECT code, length_mm AS lengthMm, width_mm AS widthMm, height_mm AS heightMm, tare_g AS tareG, most_g AS mostG, cost, low_at AS lowAt, version FROM carton ORDER BY length_mm * width_mm * height_mm, code',
      ),
      rows<BoxStockDto & { box: string }>(
        this.source,
        'SELECT k.carton AS box, k.site_id AS siteId, s.name AS site, k.units FROM carton_stock k JOIN site s ON s.id = k.site_id WHERE k.site_id IN (?) ORDER BY s.id',
        [[0, ...person.siteIds]],
      ),
    ]);
    return found.map(({ cost, ...b }) => ({
      ...b,
      ...(person.seesCosts ? { cost: cost.replace(/\.?0+$/, '') || '0' } : {}),
      stock: stock.filter((k) => k.box === b.code).map(({ box: _, ...k }) => k),
    }));
  }

  async sheet(person: Person, code: string): Promise<BoxDto> {
    const found = (await this.list(person)).find((b) => b.code === code);
    if (!found) throw notFound(`Box ${code}`);
    return found;
  }

  add(act: Act, input: NewBoxDto): Promise<{ code: string }> {
    return this.commands.run(act, 'box.add', input, async (tx) => {
      const code = input.code.toUpperCase();
      if (await find(tx, 'carton', { code })) throw badForm({ code: `${code} is taken. Choose another code` });
      await insert(tx, 'carton', { code, ...columns(act, input) });
      await this.writeStock(tx, act, code, input);
      await this.activity.record(tx, act, { kind: 'carrier', glyph: 'full', title: `Box ${code} made`, document: code });
      return { code };
    });
  }

  edit(act: Act, code: string, version: number, input: EditBoxDto): Promise<{ code: string }> {
    return this.commands.run(act, 'box.edit', { code, version, input }, async (tx) => {
      const box = await find(tx, 'carton', { code }, 'lock');
      if (!box) throw notFound(`Box ${code}`);
      mustMatch(box.version, version);
      await update(tx, 'carton', { code }, { ...columns(act, input), version: version + 1 });
      await this.writeStock(tx, act, code, input);
      await this.activity.record(tx, act, { kind: 'carrier', glyph: 'full', title: `Box ${code} changed`, document: code });
      return { code };
    });
  }

  /** A box was taken at a site's table. What was never counted stays uncounted, and nobody takes the last but one below none. */
  async taken(tx: Tx, code: string, siteId: number): Promise<void> {
    await tx.query('UPDATE carton_stock SET units = units - 1 WHERE carton = ? AND site_id = ? AND units > 0', [code, siteId]);
  }

  /** A box that was taken is there again. What was never counted stays uncounted. */
  async putBack(tx: Tx, code: string, siteId: number): Promise<void> {
    await tx.query('UPDATE carton_stock SET units = units + 1 WHERE carton = ? AND site_id = ?', [code, siteId]);
  }

  private async writeStock(tx: Tx, act: Act, code: string, { stock }: EditBoxDto): Promise<void> {
    for (const { siteId, units } of stock) {
      mustBeAt(act.person, siteId);
      await remove(tx, 'carton_stock', { carton: code, site_id: siteId });
      await insert(tx, 'carton_stock', { carton: code, site_id: siteId, units });
    }
  }
}

/** Who may not see costs cannot change them either. */
const columns = (act: Act, b: EditBoxDto) => ({
  length_mm: b.lengthMm,
  width_mm: b.widthMm,
  height_mm: b.heightMm,
  tare_g: b.tareG,
  most_g: b.mostG,
  low_at: b.lowAt,
  ...(b.cost !== undefined && act.person.seesCosts ? { cost: b.cost } : {}),
});
