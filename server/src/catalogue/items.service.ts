import { keptSku } from '@vectrum/core/catalogue';
import { Injectable } from '@nestjs/common';
import { IN_HOUSE_PREFIXES, restrictedNumber, type InHousePrefix } from '@vectrum/core/barcode';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  type NewRow,
  CommandLog,
  find,
  insert,
  mustMatch,
  nextNumber,
  notFound,
  one,
  type Row,
  type Tx,
  update,
} from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { refreshLacks } from './completeness.js';
import { checkExtra, extraFields } from './extra-fields.js';
import type { EditItemDto, NewBarcodeDto } from './items.dto.js';
import { writeParts, writeSites, writeTags } from './item-sets.js';
import { checkLadder, tieBarcode, writePacks } from './packs.js';

/** Makes and changes items with their pack units and barcodes. */
/** What a request says of an item itself; its packs, tags, parts and sites are written apart. */
type NewItem = Omit<NewRow<'item'>, 'sku'>;

@Injectable()
export class ItemsService {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly settings: SettingsService,
  ) {}

  add(act: Act, input: EditItemDto): Promise<{ code: string }> {
    return this.commands.run(act, 'item.add', input, async (tx) => {
      const sku = keptSku(input.sku);
      const taken = await find(tx, 'item', { sku });
      if (taken)
        throw badForm({ sku: `${taken.sku} is taken${taken.sku === sku ? '' : ', and differs in marks alone'}. Choose another SKU` });
      checkLadder(input.packs);
      const made = await insert(tx, 'item', { ...(await this.columns(tx, act, input)), sku });
      await this.writeSets(tx, act, made, input);
      await this.activity.record(tx, act, { kind: 'item', glyph: 'full', title: `Item ${sku} made`, detail: input.name, document: sku });
      return { code: sku };
    });
  }

  edit(act: Act, sku: string, version: number, input: EditItemDto): Promise<{ code: string }> {
    return this.commands.run(act, 'item.edit', { sku, version, input }, async (tx) => {
      const item = await this.locked(tx, sku);
      mustMatch(item.version, version);
      checkLadder(input.packs);
      if (item.tracking !== input.tracking && (await hasStock(tx, item.id))) {
        throw badState(`There is stock of ${sku}. How it is tracked can change only when there is none`);
      }
      await update(tx, 'item', { id: item.id }, { ...(await this.columns(tx, act, input)), version: version + 1 });
      await this.writeSets(tx, act, item.id, input);
      await this.activity.record(tx, act, { kind: 'item', glyph: 'full', title: `Item ${sku} changed`, detail: input.name, document: sku });
      return { code: sku };
    });
  }

  /** Ties a code to one of an item's pack units, or makes an in-house one for it. */
  addBarcode(act: Act, sku: string, input: NewBarcodeDto): Promise<{ code: string }> {
    return this.commands.run(act, 'item.barcode', { sku, input }, async (tx) => ({ code: (await this.tie(tx, act, sku, input)).code }));
  }

  /** The same within a transaction that is open already. */
  async tie(tx: Tx, act: Act, sku: string, input: NewBarcodeDto): Promise<{ code: string; activityId: number }> {
    const item = await this.locked(tx, sku);
    const pack = await find(tx, 'pack_unit', { item_id: item.id, factor: input.factor });
    if (!pack) throw badForm({ factor: `${sku} has no pack of ${input.factor}. Choose one that it has` });
    if (!input.code && !input.make) throw badForm({ code: 'Scan the barcode, or say which kind to make' });
    const code = await tieBarcode(tx, pack.id, input.code ?? (await this.inHouse(tx, input.make ?? 'restricted')));
    await update(tx, 'item', { id: item.id }, { version: item.version + 1 });
    await refreshLacks(tx, [item.id]);
    const activityId = await this.activity.record(tx, act, {
      kind: 'barcode',
      glyph: 'full',
      title: `${code} tied to ${item.name}`,
      detail: pack.factor === 1 ? pack.name : `${pack.name} of ${pack.factor}`,
      document: sku,
    });
    return { code, activityId };
  }

  /** A code of the house's own that nothing has yet. */
  async inHouse(tx: Tx, kind: 'restricted' | 'code-128'): Promise<string> {
    for (;;) {
      const n = await nextNumber(tx, 'IN');
      const prefix = await this.settings.get(tx, 'inHousePrefix');
      const known = IN_HOUSE_PREFIXES.find((p): p is InHousePrefix => p === prefix) ?? '20';
      const code = kind === 'restricted' ? restrictedNumber(known, n) : `IH-${String(n).padStart(6, '0')}`;
      const taken = await one(tx, 'SELECT id FROM barcode WHERE code IN (?, ?)', [code, code.padStart(14, '0')]);
      if (!taken) return code;
    }
  }

  private async locked(tx: Tx, sku: string): Promise<Row<'item'>> {
    const item = await find(tx, 'item', { sku }, 'lock');
    if (!item) throw notFound(`Item ${sku}`);
    return item;
  }

  private async writeSets(tx: Tx, act: Act, itemId: number, input: EditItemDto): Promise<void> {
    if (input.tags) await writeTags(tx, itemId, input.tags);
    if (input.sites) await writeSites(tx, act, itemId, input.sites);
    if (input.parts) await writeParts(tx, itemId, input.kind ?? 'single', input.parts);
    await writePacks(tx, itemId, input.packs);
    await refreshLacks(tx, [itemId]);
  }

  private async columns(tx: Tx, act: Act, input: EditItemDto): Promise<NewItem> {
    if (input.taxCode && !(await one(tx, 'SELECT code FROM tax_rate WHERE code = ?', [input.taxCode]))) {
      throw badForm({ taxCode: `There is no tax rate ${input.taxCode}. Make it in Setup, Company` });
    }
    const costs = act.person.seesCosts;
    return {
      name: input.name.trim(),
      class: input.className.trim(),
      picture: input.picture,
      tracking: input.tracking,
      rotation: input.rotation,
      never_holds_up: input.neverHoldsUp ? 1 : 0,
      ...(input.scanEach === undefined ? {} : { scan_each: input.scanEach ? 1 : 0 }),
      ...(input.serialAtPacking === undefined ? {} : { serial_at_packing: input.serialAtPacking ? 1 : 0 }),
      ...(input.keepUpright === undefined ? {} : { keep_upright: input.keepUpright ? 1 : 0 }),
      ...(input.fragile === undefined ? {} : { fragile: input.fragile ? 1 : 0 }),
      ...(input.kind ? { kind: input.kind } : {}),
      ...(input.storage ? { storage: input.storage } : {}),
      ...(input.minLifeDays !== undefined ? { min_life_days: input.minLifeDays } : {}),
      ...(input.taxCode !== undefined ? { tax_code: input.taxCode } : {}),
      ...(input.extra ? { extra: JSON.stringify(checkExtra(await extraFields(tx), input.extra)) } : {}),
      ...(costs && input.cost !== undefined ? { cost: input.cost } : {}),
      ...(costs && input.labour !== undefined ? { labour: input.labour } : {}),
    };
  }
}

export async function hasStock(tx: Tx, itemId: number): Promise<boolean> {
  return (await one(tx, 'SELECT 1 AS x FROM balance WHERE item_id = ? AND units > 0 LIMIT 1', [itemId])) !== undefined;
}
