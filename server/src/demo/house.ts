import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { PeopleService } from '../identity/index.js';
import { Config, find, insert, insertMany, inTransaction, one, rows, update } from '../platform/index.js';
import { WalkingOrder } from '../sites/index.js';
import { DemoExtras } from './extras.js';
import { demoItems, type DemoItem } from './goods.js';
import { DEMO_PASSWORD, DEMO_PEOPLE } from './people.js';
import {
  DEMO_CART,
  DEMO_FLOORS,
  DEMO_WALL,
  DEMO_WALL_COLUMNS,
  demoCartTotes,
  demoPlaces,
  demoShapes,
  demoSlots,
  type DemoPlace,
} from './places.js';

const SUPPLIERS = [
  ['PELLOWICK', 'Pellowick Joinery', 21],
  ['MARROWDALE', 'Marrowdale Wax', 10],
  ['QUILLON', 'Quillon Glassware', 28],
  ['OULDEN', 'Oulden Syrup Mill', 5],
  ['VETCHLEY', 'Vetchley Animal Care', 7],
  ['BRINDLEMOOR', 'Brindlemoor Instruments', 14],
  ['TINDRA', 'Tindra Textiles', 18],
  ['CORRIN', 'Corrin Packaging', 6],
] as const;

const ZONES = [
  ['SHELVES', 'Shelving', 'none'],
  ['PALLETS', 'Pallets', 'none'],
  ['CAGE', 'Treatments cage', 'restricted'],
  ['COLD', 'Cold corner', 'cold'],
] as const;

/** Goods that would leak or spill on their side, and goods that nothing may stand on. */
const KEPT_UPRIGHT = /^(SYR|THY|EXT)-/;
const FRAGILE = /^VEIL-/;

/** Code, inner size in mm, own weight and limit in g, cost, when few are left, how many there are. */
const BOXES = [
  ['B1', 220, 160, 110, 90, 5_000, '0.21', 100, 640],
  ['F1', 480, 480, 60, 210, 10_000, '0.45', 40, 96],
  ['B2', 310, 230, 160, 180, 10_000, '0.34', 100, 415],
  ['B3', 400, 300, 250, 320, 20_000, '0.58', 80, 62],
  ['B4', 520, 400, 320, 540, 25_000, '0.96', 40, 130],
  ['B5', 600, 600, 600, 980, 30_000, '1.85', 20, 48],
  ['B6', 700, 600, 950, 1_800, 30_000, '3.10', 10, 17],
  ['PALLET', 1200, 800, 1500, 25_000, 800_000, '9.50', 6, 22],
] as const;

/** The other channels sell some goods under codes of their own. */
const LINDENMART_CODES: Readonly<Record<string, string>> = {
  'JAR-454-RD': 'LM-88121',
  'FRM-DN1': 'LM-88140',
  'SMK-LGE': 'LM-90017',
  'SUIT-M': 'LM-90230',
  'WAX-DN-10': 'LM-91402',
  'TOOL-JH': 'LM-91555',
};
export const SHOP_SECRET = 'shop-and-stores-share-this';
export const LINDEN_KEY = 'seller-of-the-market';
export const TRADE_SECRET = 'trade-and-stores-share-this';
export const CARRIER_KEY = 'carrier-knows-this-house';

/** Writes what stands still in the demo: sites, places, people, goods, suppliers, channels, carriers, boxes. */
@Injectable()
export class DemoHouse {
  constructor(
    private readonly source: DataSource,
    private readonly people: PeopleService,
    private readonly config: Config,
    private readonly walking: WalkingOrder,
    private readonly extras: DemoExtras,
  ) {}

  async build(): Promise<void> {
    for (const [code, name, address_line, postcode] of [
      ['MILL', 'Millrace', 'Millrace Works, 1 Weir Lane', 'NW8 1AA'],
      ['QUAY', 'Quayside', '12 Harbour Street', 'NW1 6XE'],
      ['BARN', 'Orchard Barn', 'Orchard Barn, Long Drove', 'NW9 4BN'],
    ] as const) {
      // Millrace sends goods every day of the week, so that the demo has a day before it whenever it is begun.
      const at = { address_line, city: 'Netherwick', postcode, country: 'GB' };
      await insert(this.source, 'site', { code, name, ...at, ...(code === 'MILL' ? { working_days: 'YYYYYYY' } : {}) });
    }
    await this.source.query('INSERT INTO number_series (name, next) VALUES ?', [
      [
        ['P', 1180],
        ['S', 20380],
        ['R', 612],
        ['H', 88],
      ],
    ]);
    const sites = new Map((await rows<{ id: number; code: string }>(this.source, 'SELECT id, code FROM site')).map((s) => [s.code, s.id]));
    await this.places(sites);
    for (const p of DEMO_PEOPLE) {
      await this.people.add({
        ...p,
        password: DEMO_PASSWORD,
        siteIds: p.sites.map((s) => sites.get(s) ?? 0),
      });
    }
    await this.goods();
    await this.extras.build();
    await this.partners(sites.get('MILL') ?? 0);
  }

  private async places(sites: ReadonlyMap<string, number>): Promise<void> {
    const aisles = new Map<string, number>();
    for (const s of demoShapes()) {
      const [[x_m, y_m], [to_x_m, to_y_m]] = [s.from, s.to];
      const made = await insert(this.source, 'plan_shape', {
        site_id: sites.get(s.site) ?? 0,
        kind: s.kind,
        label: s.label,
        x_m,
        y_m,
        to_x_m,
        to_y_m,
      });
      if (s.kind === 'aisle') aisles.set(`${s.site}/${s.label}`, made);
    }
    const zones = new Map<string, number>();
    for (const [code, name, rule] of ZONES) {
      const made = await insert(this.source, 'place', { site_id: sites.get('MILL'), code, kind: 'zone', name, rule });
      zones.set(code, made);
    }
    const zoneOf = (p: DemoPlace) =>
      p.site !== 'MILL' || !p.aisle
        ? null
        : (zones.get(p.aisle === 'V' ? 'CAGE' : p.aisle === 'K' ? 'COLD' : p.aisle === 'P' ? 'PALLETS' : 'SHELVES') ?? null);
    const values = (p: DemoPlace) => [
      sites.get(p.site),
      zoneOf(p),
      p.code,
      p.kind,
      p.pickable ? 1 : 0,
      p.walkOrder,
      p.x,
      p.y,
      p.aisle ? (aisles.get(`${p.site}/${p.aisle}`) ?? null) : null,
      p.along,
      p.kind === 'pick-face' ? 180_000 : p.kind === 'reserve' ? 600_000 : null,
      p.kind === 'pick-face' ? 150_000 : p.kind === 'reserve' ? 500_000 : null,
    ];
    await this.source.query(
      'INSERT INTO place (site_id, parent_id, code, kind, pickable, walk_order, x_m, y_m, aisle_id, along_m, holds_ml, holds_g) VALUES ?',
      [demoPlaces().map(values)],
    );
    const wall = await find(this.source, 'place', { code: DEMO_WALL });
    if (wall) {
      await update(this.source, 'place', { id: wall.id }, { wall_columns: DEMO_WALL_COLUMNS });
      await insertMany(
        this.source,
        'place',
        ['site_id', 'parent_id', 'code', 'kind', 'walk_order'],
        demoSlots().map((code, i) => [wall.site_id, wall.id, code, 'wall-slot', 9400 + i]),
      );
    }
    const cart = await find(this.source, 'place', { code: DEMO_CART });
    if (cart) await update(this.source, 'place', { code: demoCartTotes() }, { parent_id: cart.id });
    for (const [code, [wide, deep]] of Object.entries(DEMO_FLOORS))
      await update(this.source, 'site', { code }, { width_m: wide, depth_m: deep });
    await inTransaction(this.source, async (tx) => {
      for (const id of sites.values()) await this.walking.refresh(tx, id);
    });
  }

  private async goods(): Promise<void> {
    for (const [code, name, lead] of SUPPLIERS) {
      await insert(this.source, 'supplier', {
        code,
        name,
        email: `orders@${code.toLowerCase()}.example`,
        phone: '01632 960' + String(100 + lead),
        lead_days: lead,
      });
    }
    const faces = await rows<{ id: number; code: string }>(
      this.source,
      `SELECT p.id, p.code FROM place p JOIN site s ON s.id = p.site_id WHERE s.code = 'MILL' AND p.kind = 'pick-face' ORDER BY p.code`,
    );
    const used = new Map<string, number>();
    // Every third face first, so that what sells every day is spread over the aisles; the gaps fill with the rest.
    const nth = (n: number, of: number, step: number) => ((n * step) % of) + Math.floor((n * step) / of);
    for (const item of demoItems()) {
      const zone = item.className === 'Treatments' ? 'V' : item.className === 'Feeding' ? 'K' : 'A';
      const inZone = faces.filter((f) => (zone === 'A' ? !/^[VK]/.test(f.code) : f.code.startsWith(zone)));
      const at = used.get(zone) ?? 0;
      used.set(zone, at + 1);
      await this.item(item, inZone[nth(at, inZone.length, zone === 'A' ? 3 : 1)]?.id ?? null);
    }
  }

  private async item(item: DemoItem, homeId: number | null): Promise<void> {
    const made = await insert(this.source, 'item', {
      sku: item.sku,
      name: item.name,
      class: item.className,
      picture: item.picture,
      tracking: item.tracking,
      rotation: item.tracking === 'lot-expiry' ? 'fefo' : 'fifo',
      cost: item.cost,
      never_holds_up: item.className === 'Inserts' ? 1 : 0,
      keep_upright: KEPT_UPRIGHT.test(item.sku) ? 1 : 0,
      fragile: FRAGILE.test(item.sku) ? 1 : 0,
      storage:
        item.className === 'Treatments' ? 'restricted' : item.className === 'Feeding' && item.tracking === 'lot-expiry' ? 'cold' : 'any',
      tax_code: item.className === 'Books' ? 'ZERO' : 'STD',
      lacks_barcode: item.packs.every((p) => !p.barcode) ? 1 : 0,
      lacks_cost: 0,
      lacks_size: 0,
    });
    if (homeId)
      await this.source.query('INSERT INTO item_site (item_id, site_id, home_place_id) SELECT ?, site_id, id FROM place WHERE id = ?', [
        made,
        homeId,
      ]);
    const [l, w, h] = item.sizeMm;
    for (const pack of item.packs) {
      const sized = pack.factor === 1 ? [item.weightG, l, w, h] : [item.weightG * pack.factor, null, null, null];
      const unit = await this.source.query<{ insertId: number }>(
        'INSERT INTO pack_unit (item_id, name, plural, factor, weight_g, length_mm, width_mm, height_mm) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
        [made, pack.name, pack.plural, pack.factor, ...sized],
      );
      if (pack.barcode) await insert(this.source, 'barcode', { code: pack.barcode, pack_unit_id: unit.insertId });
    }
    const bought = item.packs[1] ?? item.packs[0];
    const price = (Number(item.cost) * (bought?.factor ?? 1)).toFixed(4);
    await this.source.query(
      `INSERT INTO supplier_item (supplier_id, item_id, pack_unit_id, supplier_sku, price) SELECT s.id, ?, u.id, ?, ? FROM supplier s JOIN pack_unit u ON u.item_id = ? AND u.factor = ? WHERE s.code = ?`,
      [made, item.sku.replace(/-/g, ''), price, made, bought?.factor ?? 1, item.supplier],
    );
  }

  private async partners(siteId: number): Promise<void> {
    const outside = this.config.VECTRUM_OUTSIDE_URL;
    const channels = [
      ['SHOP', 'Web shop', 'web-shop', outside ? `${outside}/shop` : null, SHOP_SECRET],
      ['LINDEN', 'Lindenmart', 'marketplace', outside ? `${outside}/lindenmart` : null, LINDEN_KEY],
      ['TRADE', 'Trade file', 'trade', outside ? `${outside}/trade` : null, TRADE_SECRET],
      ['PHONE', 'Phone', 'phone', null, null],
    ];
    for (const c of channels)
      await this.source.query('INSERT INTO channel (code, name, kind, base_url, secret, site_id) VALUES (?, ?, ?, ?, ?, ?)', [
        ...c,
        siteId,
      ]);
    await this.source.query('INSERT INTO channel_site (channel_id, site_id) SELECT id, site_id FROM channel');
    await this.source.query(`UPDATE channel SET share_percent = 40, scarce_under = 12 WHERE code = 'LINDEN'`);
    await this.source.query(`UPDATE channel SET check_over = 900 WHERE code = 'SHOP'`);
    const items = demoItems();
    for (const item of items.filter((i) => !['Inserts', 'Packaging', 'Kits'].includes(i.className))) {
      for (const code of ['SHOP', 'TRADE', 'PHONE']) await this.listing(code, item.sku, item.sku, item.price, code === 'SHOP' ? 2 : 0);
    }
    for (const [sku, own] of Object.entries(LINDENMART_CODES))
      await this.listing('LINDEN', own, sku, items.find((i) => i.sku === sku)?.price ?? '1', 5);
    await this.carriers(outside ?? 'http://127.0.0.1:9');
    if (this.config.PRINTER)
      await insert(this.source, 'printer', { name: 'Label printer, packing tables', site_id: siteId, address: this.config.PRINTER });
    if (this.config.SCALE)
      await insert(this.source, 'scale', { name: 'Scale, packing tables', site_id: siteId, address: this.config.SCALE });
    for (const [code, length_mm, width_mm, height_mm, tare_g, most_g, cost, low_at, units] of BOXES) {
      await insert(this.source, 'carton', { code, length_mm, width_mm, height_mm, tare_g, most_g, cost, low_at });
      await insert(this.source, 'carton_stock', { carton: code, site_id: siteId, units });
    }
    await this.goesAlong();
  }

  /** A box that is bought and counted like goods, and a card for new customers with a large first order. */
  private async goesAlong(): Promise<void> {
    const [box, card, shop] = [
      await find(this.source, 'item', { sku: 'BOX-GFT-2' }),
      await find(this.source, 'item', { sku: 'CRD-RECIPE' }),
      await find(this.source, 'channel', { code: 'SHOP' }),
    ];
    const gift = { code: 'GIFT2', length_mm: 190, width_mm: 100, height_mm: 120, tare_g: 95, most_g: 3_000, cost: '0.78', low_at: 50 };
    await insert(this.source, 'carton', { ...gift, item_id: box?.id ?? null });
    await insert(this.source, 'insert_rule', {
      item_id: card?.id ?? 0,
      channel_id: shop?.id ?? null,
      from_value: '300',
      first_only: true,
    });
  }

  private async listing(channel: string, channelSku: string, sku: string, price: string, keepBack: number): Promise<void> {
    await this.source.query(
      'INSERT INTO listing (channel_id, channel_sku, item_id, keep_back, price) SELECT c.id, ?, i.id, ?, ? FROM channel c JOIN item i ON i.sku = ? WHERE c.code = ?',
      [channelSku, keepBack, price, sku, channel],
    );
  }

  /** A post, a freight carrier, and one in town for the same day: each with a system of its own. */
  private async carriers(outside: string): Promise<void> {
    for (const [code, name, path, lane, leavesAt] of [
      ['HARRIER', 'Harrier Post', 'harrier', 'LANE-HARRIER', '15:30:00'],
      ['NORTHWAY', 'Northway Freight', 'northway', 'LANE-NORTHWAY', '16:30:00'],
      ['PEDAL', 'Pedal & Pannier', 'pedal', 'QUAY-LANE', '17:00:00'],
    ] as const) {
      const place = await one<{ id: number; site_id: number }>(this.source, 'SELECT id, site_id FROM place WHERE code = ?', [lane]);
      const carrier_id = await insert(this.source, 'carrier', {
        code,
        name,
        base_url: `${outside}/carriers/${path}`,
        api_key: CARRIER_KEY,
      });
      const site_id = place?.site_id ?? 0;
      await insert(this.source, 'carrier_lane', { carrier_id, site_id, place_id: place?.id ?? 0 });
      await insert(this.source, 'departure', { site_id, carrier_id, name, leaves_at: leavesAt, closes_minutes: 90 });
    }
  }
}
