import sharp from 'sharp';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { insertMany, update } from '../platform/index.js';

const MARK = `<svg xmlns="http://www.w3.org/2000/svg" width="84" height="84" viewBox="0 0 84 84"><circle cx="42" cy="42" r="40" fill="#141e32"/><path d="M42 12l4 9 8-6-2 10 9-1-6 8H29l-6-8 9 1-2-10 8 6z" fill="#e9f72f"/><path d="M30 35h24c0 9-5 14-12 14s-12-5-12-14z" fill="#d3ba94"/><path d="M42 49v11" stroke="#d3ba94" stroke-width="4"/><path d="M12 62q8-6 15 0t15 0 15 0 15 0v6q-8 6-15 0t-15 0-15 0-15 0z" fill="#b7becb"/></svg>`;
const SETTINGS = {
  companyName: 'Tarn & Thistle',
  companyAddress: 'Millrace Works, 1 Weir Lane, Netherwick NW8 1AA',
} as const;
const KITS: readonly (readonly [
  kit: string,
  kind: 'kit' | 'assembly',
  labour: string | null,
  parts: readonly (readonly [string, number])[],
])[] = [
  [
    'KIT-START',
    'kit',
    null,
    [
      ['HIV-FLR', 1],
      ['HIV-BRD', 1],
      ['HIV-RUF', 1],
      ['FRM-DN1', 10],
      ['SMK-SML', 1],
      ['TOOL-STD', 1],
    ],
  ],
  [
    'KIT-HARV',
    'kit',
    null,
    [
      ['EXT-4T', 1],
      ['SVE-DBL', 1],
      ['UNC-FORK', 1],
      ['TNK-50', 1],
    ],
  ],
  [
    'KIT-CHILD',
    'kit',
    null,
    [
      ['SUIT-CH-10', 1],
      ['GLV-XS', 1],
      ['TOOL-STD', 1],
      ['BOK-KIDS', 1],
    ],
  ],
  [
    'KIT-TREAT',
    'kit',
    null,
    [
      ['MTS-02', 1],
      ['THY-STR', 1],
      ['POL-PAT', 2],
    ],
  ],
  [
    'NUC-STD',
    'assembly',
    '3.50',
    [
      ['HIV-CRN', 1],
      ['FRM-SN1', 2],
    ],
  ],
];
const TAGS: readonly (readonly [tag: string, skus: readonly string[]])[] = [
  ['fragile', ['JAR-454-RD', 'JAR-340-HX', 'JAR-227-RD', 'JAR-042-MI']],
  ['spring', ['FRM-DN1', 'FRM-DN4', 'FRM-SN1', 'WAX-DN-10', 'WAX-SN-10', 'SUIT-M', 'SUIT-L']],
  ['autumn', ['FON-125', 'FON-025', 'MTS-10', 'MTS-02', 'OXA-35']],
  ['bulky', ['HIV-BRD', 'HIV-SUP', 'EXT-4T', 'TNK-50']],
];
const CUSTOMERS: readonly (readonly [code: string, name: string, line: string, city: string, postcode: string])[] = [
  ['WICKHILL', 'Wick Hill Farm Shop', '2 Beacon Row', 'Netherwick', 'NW8 2RE'],
  ['ALDERBEES', 'Alder Vale Beekeepers', 'The Old Dairy', 'Alderford', 'AL4 7TT'],
  ['MOORFOOT', 'Moorfoot Honey Co.', '18 Quarry Bank', 'Stanmoor', 'SM2 9DD'],
  ['THORNLEA', 'Thornlea Garden Centre', 'Station Approach', 'Thornlea', 'TL1 3BQ'],
  ['DUNBRIDGE', 'Dunbridge Apiaries', '5 Weavers Yard', 'Dunbridge', 'DB6 8LN'],
];
/** Reorder points of a few goods at the main warehouse: units to buy at, units to buy up to. */
const POLICIES: readonly (readonly [sku: string, point: number, upTo: number])[] = [
  ['JAR-454-RD', 384, 1536],
  ['JAR-340-HX', 240, 960],
  ['FRM-DN1', 120, 1000],
  ['SUIT-L', 6, 24],
  ['MTS-10', 40, 160],
  ['SYR-05', 32, 128],
];

/** Pick faces at the main warehouse that are filled up again: below so many units, up to so many. */
const FACES: readonly (readonly [sku: string, below: number, upTo: number])[] = [
  ['JAR-454-RD', 96, 384],
  ['SUIT-M', 20, 36],
  ['FRM-FDR', 12, 20],
  ['FON-125', 12, 72],
  ['TOOL-JH', 20, 60],
];

/** What the demo's company has chosen and added: its own fields, tags, kits, customers, money, reorder points. */
@Injectable()
export class DemoExtras {
  constructor(private readonly source: DataSource) {}

  /** The company's mark: a thistle over a tarn. */
  private async mark(): Promise<void> {
    const { data, info } = await sharp(Buffer.from(MARK)).png().toBuffer({ resolveWithObject: true });
    await this.source.query('INSERT INTO company_mark (id, png, width, height) VALUES (1, ?, ?, ?)', [data, info.width, info.height]);
  }

  async build(): Promise<void> {
    await this.mark();
    await insertMany(
      this.source,
      'setting',
      ['name', 'value'],
      Object.entries(SETTINGS).map(([name, value]) => [name, JSON.stringify({ is: value })]),
    );
    await insertMany(
      this.source,
      'currency',
      ['code', 'rate', 'as_of'],
      [
        ['EUR', '0.86', '2026-05-01'],
        ['CZK', '0.0345', '2026-05-01'],
      ],
    );
    await insertMany(
      this.source,
      'tax_rate',
      ['code', 'name', 'percent'],
      [
        ['STD', 'Standard', '20'],
        ['ZERO', 'Zero, books and food', '0'],
      ],
    );
    await insertMany(
      this.source,
      'extra_field',
      ['name', 'kind', 'choices', 'position'],
      [
        ['Country of origin', 'choice', JSON.stringify(['United Kingdom', 'Czechia', 'Lithuania']), 0],
        ['Guarantee in months', 'number', '[]', 1],
      ],
    );
    await this.source.query(
      `UPDATE item SET extra = JSON_OBJECT('Country of origin', 'Czechia') WHERE class = 'Jars and lids' AND sku LIKE 'JAR%'`,
    );
    await this.source.query(`UPDATE item SET extra = JSON_OBJECT('Guarantee in months', '24') WHERE tracking = 'serial'`);
    for (const [kit, kind, labour, parts] of KITS) {
      await update(this.source, 'item', { sku: kit }, { kind, labour });
      for (const [part, units] of parts)
        await this.source.query(
          'INSERT INTO item_part (item_id, part_item_id, units) SELECT k.id, p.id, ? FROM item k JOIN item p WHERE k.sku = ? AND p.sku = ?',
          [units, kit, part],
        );
    }
    for (const [tag, skus] of TAGS)
      await this.source.query('INSERT INTO item_tag (item_id, tag) SELECT id, ? FROM item WHERE sku IN (?)', [tag, skus]);
    for (const [sku, point, upTo] of POLICIES)
      await this.source.query(
        'UPDATE item_site x JOIN item i ON i.id = x.item_id SET x.reorder_point = ?, x.order_up_to = ? WHERE i.sku = ?',
        [point, upTo, sku],
      );
    for (const [sku, below, upTo] of FACES)
      await this.source.query(
        'UPDATE item_site x JOIN item i ON i.id = x.item_id SET x.refill_below = ?, x.refill_up_to = ? WHERE i.sku = ? AND x.site_id = 1',
        [below, upTo, sku],
      );
    await insertMany(
      this.source,
      'customer',
      ['code', 'name', 'email', 'address_line', 'city', 'postcode'],
      CUSTOMERS.map(([code, name, line, city, postcode]) => [code, name, `orders@${code.toLowerCase()}.example`, line, city, postcode]),
    );
    await this.source.query(
      `INSERT INTO customer_address (customer_id, name, address_line, city, postcode) SELECT id, 'Back gate', CONCAT(address_line, ', back gate'), city, postcode FROM customer ORDER BY id LIMIT 2`,
    );
    await this.source.query(
      `INSERT INTO customer_price (customer_id, item_id, factor, price) SELECT c.id, i.id, u.factor, ROUND(u.factor * 0.82, 2) FROM (SELECT id FROM customer ORDER BY id LIMIT 3) c JOIN item i ON i.sku IN ('JAR-454-RD', 'JAR-227-RD') JOIN pack_unit u ON u.item_id = i.id AND u.factor > 1`,
    );
  }
}
