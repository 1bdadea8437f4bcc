import { Injectable } from '@nestjs/common';
import { boxOf } from '@vectrum/core/barcode';
import { gs1Text, type LabelRecord, type LabelSubject } from '@vectrum/core/labels';
import { packName } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { dayIn, marks, notFound, parsed, type Person, rows } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import type { LabelOfDto } from './labels.dto.js';

const COMMANDS: Readonly<Record<string, string>> = {
  'VX-CONFIRM': 'Confirm',
  'VX-UNDO': 'Undo',
  'VX-NOT-HERE': 'Not here',
  'VX-DAMAGED': 'Damaged',
  'VX-APART': 'Set apart, take out',
  'VX-TAKE': 'Take it all the same',
  'VX-LABEL': 'Print the label',
  'VX-WEIGH': 'Weigh',
  'VX-SERVICE': 'Next service',
  'VX-PARCEL': 'Another parcel',
  'VX-OPEN': 'Open again',
  'VX-PARK': 'Park',
  'VX-ALL': 'All of it is in',
  'VX-LEAVE-OUT': 'Leave inserts out',
};

/** The values that labels show, read from the records they are about. */
@Injectable()
export class LabelRecords {
  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
  ) {}

  async of(person: Person, subject: LabelSubject, wanted: readonly LabelOfDto[]): Promise<LabelRecord[]> {
    const codes = [...new Set(wanted.map((w) => w.code.toUpperCase()))];
    const found = await this.load(person, subject, codes, wanted);
    return wanted.map((w) => {
      const record = found(w);
      if (!record) throw notFound(w.code);
      return record;
    });
  }

  private async load(
    person: Person,
    subject: LabelSubject,
    codes: readonly string[],
    wanted: readonly LabelOfDto[],
  ): Promise<(w: LabelOfDto) => LabelRecord | undefined> {
    switch (subject) {
      case 'place':
        return byCode(await this.places(codes, person.siteIds));
      case 'item': {
        const items = await this.items(codes, person.siteIds);
        const record = (w: LabelOfDto) => items(w.code.toUpperCase(), w.holds ?? 1, w.lot ?? '', w.expires ?? '');
        return wanted.length > 0 ? record : () => undefined;
      }
      case 'badge':
        return byCode(await this.badges(person, codes));
      case 'document':
        return byCode(await this.documents(codes, person.siteIds));
    }
  }

  private async places(codes: readonly string[], siteIds: readonly number[]) {
    const found = await rows<{ code: string; kind: string; site: string; zone: string | null; aisle: string | null }>(
      this.source,
      `SELECT p.code, p.kind, s.name AS site, z.name AS zone, a.label AS aisle FROM place p JOIN site s ON s.id = p.site_id LEFT JOIN place z ON z.id = p.parent_id AND z.kind = 'zone'
       LEFT JOIN plan_shape a ON a.id = p.aisle_id WHERE p.site_id IN (?) AND p.code IN (${marks(codes)})`,
      [[0, ...siteIds], ...codes],
    );
    return found.map((p): [string, LabelRecord] => {
      const [aisle = '', bay = '', level = ''] = p.code.split('-');
      return [
        p.code,
        { code: p.code, kind: p.kind.replace('-', ' '), site: p.site, zone: p.zone ?? '', aisle: p.aisle ?? aisle, bay, level },
      ];
    });
  }

  private async items(codes: readonly string[], siteIds: readonly number[]) {
    const found = await rows<{
      sku: string;
      name: string;
      class: string;
      pack: string;
      plural: string;
      factor: number;
      barcode: string | null;
      home: string | null;
    }>(
      this.source,
      `SELECT i.sku, i.name, i.class, u.name AS pack, u.plural, u.factor, (SELECT b.code FROM barcode b WHERE b.pack_unit_id = u.id ORDER BY b.id LIMIT 1) AS barcode,
         (SELECT p.code FROM item_site h JOIN place p ON p.id = h.home_place_id WHERE h.item_id = i.id AND h.site_id IN (?) ORDER BY h.site_id LIMIT 1) AS home
       FROM item i JOIN pack_unit u ON u.item_id = i.id WHERE i.sku IN (${marks(codes)})`,
      [[0, ...siteIds], ...codes],
    );
    const byPack = new Map(found.map((f) => [`${f.sku}/${f.factor}`, f]));
    return (sku: string, holds: number, lot: string, expires: string): LabelRecord | undefined => {
      const i = byPack.get(`${sku}/${holds}`);
      if (!i) return undefined;
      // Goods without a barcode of their own are labelled with their SKU, which every scan understands too.
      const barcode = i.barcode ? i.barcode.replace(/^0(?=\d{13}$)/, '') : i.sku;
      return {
        name: i.name,
        sku: i.sku,
        class: i.class,
        pack: packName({ id: 0, name: i.pack, plural: i.plural, factor: i.factor }, 1),
        home: i.home ?? '',
        barcode,
        lot,
        expires,
        gs1: gs1Text(barcode, lot || null, expires || null) || barcode,
      };
    };
  }

  /** Whoever sets up people prints badges of those at their sites; others their own. */
  private async badges(person: Person, codes: readonly string[]) {
    const company = await this.settings.get(this.source, 'companyName');
    const found = await rows<{ name: string; badge: string; duties: unknown }>(
      this.source,
      `SELECT name, badge_code AS badge, duties FROM person p WHERE active = 1 AND badge_code IN (${marks(codes)}) AND (p.id = ? OR (? AND EXISTS (SELECT 1 FROM person_site s WHERE s.person_id = p.id AND s.site_id IN (?))))`,
      [...codes, person.id, person.rights.has('set-up') ? 1 : 0, [0, ...person.siteIds]],
    );
    return found.map((p): [string, LabelRecord] => [
      p.badge,
      { name: p.name, badge: p.badge, duty: parsed<string[]>(p.duties).join(', ').replace(/-/g, ' '), company },
    ]);
  }

  /** Labels that choose a box when they are scanned at the packing table. */
  private async boxes(codes: readonly string[]): Promise<[string, LabelRecord][]> {
    const wanted = codes.flatMap((code) => boxOf(code) ?? []);
    if (wanted.length === 0) return [];
    const found = await rows<{ code: string; size: string }>(
      this.source,
      `SELECT code, CONCAT(length_mm, ' × ', width_mm, ' × ', height_mm, ' mm') AS size FROM carton WHERE code IN (${marks(wanted)})`,
      wanted,
    );
    return found.map((b) => [`VX-BOX-${b.code}`, { code: `VX-BOX-${b.code}`, title: `Box ${b.code}`, kind: b.size, date: '' }]);
  }

  private async documents(codes: readonly string[], siteIds: readonly number[]) {
    const sites = [0, ...siteIds];
    const found = await rows<{ code: string; title: string; kind: string; date: Date | null; timeZone: string }>(
      this.source,
      `SELECT o.code, s.name AS title, 'purchase order' AS kind, o.created_at AS date, t.time_zone AS timeZone FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN site t ON t.id = o.site_id WHERE o.site_id IN (?) AND o.code IN (${marks(codes)})
       UNION ALL SELECT o.code, o.customer, 'order', o.placed_at, t.time_zone FROM sales_order o JOIN site t ON t.id = o.site_id WHERE o.site_id IN (?) AND o.code IN (${marks(codes)})
       UNION ALL SELECT r.code, o.customer, 'round', r.created_at, t.time_zone FROM \`round\` r JOIN round_order x ON x.round_id = r.id JOIN sales_order o ON o.id = x.order_id JOIN site t ON t.id = r.site_id WHERE r.site_id IN (?) AND r.code IN (${marks(codes)})`,
      [sites, ...codes, sites, ...codes, sites, ...codes],
    );
    const papers = found.map((d): [string, LabelRecord] => [
      d.code,
      { code: d.code, title: d.title, kind: d.kind, date: d.date ? dayIn(d.timeZone, d.date) : '' },
    ]);
    const cards = codes.flatMap((code): [string, LabelRecord][] =>
      COMMANDS[code] ? [[code, { code, title: COMMANDS[code] ?? '', kind: 'command card', date: '' }]] : [],
    );
    return [...papers, ...cards, ...(await this.boxes(codes))];
  }
}

function byCode(found: readonly [string, LabelRecord][]) {
  const map = new Map(found.map(([code, record]) => [code.toUpperCase(), record]));
  return (w: LabelOfDto) => map.get(w.code.toUpperCase());
}
