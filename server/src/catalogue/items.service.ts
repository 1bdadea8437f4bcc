import { Injectable } from '@nestjs/common';
import { hasCheckDigit } from '@vectrum/core/barcode';
import { codeKey } from '@vectrum/core/scan';
import type { Act } from '../platform/act.js';
import { ActivityService } from '../activity/activity.service.js';
import { CommandLog } from '../platform/command-log.js';
import { one, rows, type Tx } from '../platform/database/tx.js';
import { badForm, badState, notFound } from '../platform/problem.js';
import { mustMatch } from '../platform/version.js';
import { Place } from '../sites/place.entity.js';
import type { EditItemDto, EditPackDto } from './catalogue.dto.js';
import { Barcode, Item, PackUnitRow } from './catalogue.entity.js';

/** Makes and changes items with their pack units and barcodes. */
@Injectable()
export class ItemsService {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  add(act: Act, input: EditItemDto): Promise<{ code: string }> {
    return this.commands.run(act, 'item.add', input, async (tx) => {
      const sku = input.sku.toUpperCase();
      if (await tx.findOneBy(Item, { sku })) throw badForm({ sku: `${sku} is taken. Choose another SKU` });
      checkLadder(input.packs);
      const made = await tx.insert(Item, { ...(await this.columns(tx, input, act.person.seesCosts)), sku });
      const id = (made.identifiers[0] as { id: number }).id;
      await this.writePacks(tx, id, input.packs);
      await this.activity.record(tx, act, {
        kind: 'item',
        glyph: 'full',
        title: `Item ${sku} made`,
        detail: input.name,
        document: sku,
      });
      return { code: sku };
    });
  }

  edit(act: Act, sku: string, version: number, input: EditItemDto): Promise<{ code: string }> {
    return this.commands.run(act, 'item.edit', { sku, version, input }, async (tx) => {
      const item = await tx.findOne(Item, { where: { sku }, lock: { mode: 'pessimistic_write' } });
      if (!item) throw notFound(`Item ${sku}`);
      mustMatch(item.version, version);
      checkLadder(input.packs);
      if (
        item.tracking !== input.tracking &&
        (await one(tx, 'SELECT 1 AS x FROM balance WHERE item_id = ? AND units > 0 LIMIT 1', [item.id]))
      ) {
        throw badState(`There is stock of ${sku}. How it is tracked can change only when there is none`);
      }
      await tx.update(Item, item.id, {
        ...(await this.columns(tx, input, act.person.seesCosts)),
        version: version + 1,
      });
      await this.writePacks(tx, item.id, input.packs);
      await this.activity.record(tx, act, {
        kind: 'item',
        glyph: 'full',
        title: `Item ${sku} changed`,
        detail: input.name,
        document: sku,
      });
      return { code: sku };
    });
  }

  private async columns(tx: Tx, input: EditItemDto, seesCosts: boolean): Promise<Partial<Item>> {
    const home = input.home ? await tx.findOneBy(Place, { code: input.home.toUpperCase() }) : null;
    if (input.home && !home) throw badForm({ home: `There is no place ${input.home}. Type the code of a bin` });
    return {
      name: input.name.trim(),
      className: input.className.trim(),
      picture: input.picture,
      tracking: input.tracking,
      rotation: input.rotation,
      neverHoldsUp: input.neverHoldsUp ? 1 : 0,
      homePlaceId: home?.id ?? null,
      ...(seesCosts && input.cost !== undefined ? { cost: input.cost } : {}),
    };
  }

  private async writePacks(tx: Tx, itemId: number, packs: readonly EditPackDto[]): Promise<void> {
    const kept = await tx.findBy(PackUnitRow, { itemId });
    for (const old of kept) {
      if (packs.some((p) => p.factor === old.factor)) continue;
      const used = await one(
        tx,
        'SELECT 1 AS x FROM purchase_order_line WHERE pack_unit_id = ? UNION SELECT 1 FROM supplier_item WHERE pack_unit_id = ? LIMIT 1',
        [old.id, old.id],
      );
      if (used) throw badState(`The ${old.name} of ${old.factor} is written on purchase orders or price lists and must stay`);
      await tx.delete(Barcode, { packUnitId: old.id });
      await tx.delete(PackUnitRow, old.id);
    }
    for (const pack of packs) await this.writePack(tx, itemId, pack, kept.find((k) => k.factor === pack.factor)?.id);
  }

  private async writePack(tx: Tx, itemId: number, pack: EditPackDto, keptId: number | undefined): Promise<void> {
    const columns = {
      itemId,
      name: pack.name.trim().toLowerCase(),
      plural: pack.plural.trim().toLowerCase(),
      factor: pack.factor,
      weightG: pack.weightG ?? null,
      lengthMm: pack.lengthMm ?? null,
      widthMm: pack.widthMm ?? null,
      heightMm: pack.heightMm ?? null,
    };
    let id = keptId;
    if (id === undefined) id = ((await tx.insert(PackUnitRow, columns)).identifiers[0] as { id: number }).id;
    else await tx.update(PackUnitRow, id, columns);
    await tx.delete(Barcode, { packUnitId: id });
    const today = new Date().toISOString().slice(0, 10);
    for (const text of pack.barcodes) {
      if (/^\d{8}$|^\d{12,14}$/.test(text.trim()) && !hasCheckDigit(text.trim())) {
        throw badForm({ packs: `${text} has a wrong check digit. Scan the barcode rather than typing it` });
      }
      const code = codeKey(text, today);
      const taken = await rows<{ sku: string }>(
        tx,
        'SELECT i.sku FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id JOIN item i ON i.id = u.item_id WHERE b.code = ?',
        [code],
      );
      if (taken[0]) throw badForm({ packs: `${text} is on ${taken[0].sku} already. One barcode means one thing` });
      await tx.insert(Barcode, { code, packUnitId: id });
    }
  }
}

function checkLadder(packs: readonly EditPackDto[]): void {
  const factors = packs.map((p) => p.factor);
  if (!factors.includes(1)) throw badForm({ packs: 'One pack unit is the base unit, with 1 in it' });
  if (new Set(factors).size !== factors.length) throw badForm({ packs: 'Two pack units hold the same number. Keep one of them' });
}
