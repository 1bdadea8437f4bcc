import { Injectable } from '@nestjs/common';
import { isFor } from '@vectrum/core/places';
import { DataSource } from 'typeorm';
import { notFound, num, one, type Person, rows } from '../platform/index.js';
import type { TraceDto, TraceFoundDto, TraceKinDto, TraceOriginDto, TraceUsedDto, TraceWentDto, TraceWhereDto } from './tracing.dto.js';

export interface LotFacts {
  lotId: number;
  itemId: number;
  sku: string;
  item: string;
  lot: string;
  expiresOn: string | null;
  firstOn: string | null;
}
/** One movement of a lot, with the kinds of places at its ends. */
export interface LotMovement {
  id: string;
  fromKind: string;
  fromPlace: string;
  fromSite: number | null;
  toKind: string;
  toPlace: string;
  toSite: number | null;
  units: number;
  task: string;
  document: string | null;
  reason: string | null;
  reversesId: string | null;
  at: Date;
  by: string | null;
}

const MOST_FOUND = 50;
const ORIGIN: Readonly<Record<string, TraceOriginDto['kind']>> = {
  supplier: 'supplier',
  customer: 'customer',
  assembly: 'assembly',
  'count-difference': 'count',
};
const USED: Readonly<Record<string, TraceUsedDto['kind']>> = {
  scrap: 'scrap',
  'own-use': 'own-use',
  assembly: 'assembly',
  supplier: 'supplier',
  'count-difference': 'count',
  'in-transit': 'in-transit',
};

/** Where a lot or number came from, where it is, and who got it: read from its movements, which hold all of it. */
@Injectable()
export class TraceQueries {
  constructor(private readonly source: DataSource) {}

  /** Lots and numbers that begin with a text. */
  find(text: string): Promise<TraceFoundDto[]> {
    const word = text.trim();
    if (word === '') return Promise.resolve([]);
    return rows<TraceFoundDto>(
      this.source,
      `SELECT i.sku, i.name AS item, l.code AS lot FROM lot l JOIN item i ON i.id = l.item_id WHERE l.code LIKE ? ORDER BY l.code = ? DESC, l.id DESC LIMIT ${MOST_FOUND}`,
      [`${word.replace(/[\\%_]/g, '\\$&')}%`, word],
    );
  }

  async lot(sku: string, lot: string): Promise<LotFacts> {
    const found = await one<LotFacts>(
      this.source,
      'SELECT l.id AS lotId, i.id AS itemId, i.sku, i.name AS item, l.code AS lot, l.expires_on AS expiresOn, l.first_received_on AS firstOn FROM lot l JOIN item i ON i.id = l.item_id WHERE i.sku = ? AND l.code = ?',
      [sku, lot],
    );
    if (!found) throw notFound(`Lot ${lot.slice(0, 40)} of ${sku.slice(0, 40)}`);
    return found;
  }

  /** Its movements at a person's sites. */
  async movementsFor(person: Person, lot: Pick<LotFacts, 'itemId' | 'lotId'>): Promise<LotMovement[]> {
    const at = (site: number | null) => site === null || person.siteIds.includes(site);
    return (await this.movements(lot)).filter((m) => at(m.fromSite) && at(m.toSite));
  }

  /** All movements of a lot, oldest first: found by its item. O(movements of the item). */
  private movements({ itemId, lotId }: Pick<LotFacts, 'itemId' | 'lotId'>): Promise<LotMovement[]> {
    return rows<LotMovement>(
      this.source,
      `SELECT m.id, f.kind AS fromKind, f.code AS fromPlace, f.site_id AS fromSite, t.kind AS toKind, t.code AS toPlace, t.site_id AS toSite, m.units, m.task, m.document, m.reason, m.reverses_id AS reversesId, COALESCE(m.moved_at, m.server_at) AS at, w.name AS \`by\`
       FROM movement m JOIN place f ON f.id = m.from_place_id JOIN place t ON t.id = m.to_place_id LEFT JOIN person w ON w.id = m.person_id WHERE m.item_id = ? AND m.lot_id = ? ORDER BY m.id`,
      [itemId, lotId],
    );
  }

  async trace(person: Person, sku: string, lot: string): Promise<TraceDto> {
    const facts = await this.lot(sku, lot);
    const all = await this.movements(facts);
    const undone = new Set(all.flatMap((m) => (m.reversesId === null ? [] : [m.reversesId, m.id])));
    const kept = all.filter((m) => !undone.has(m.id));
    const isOutside = (site: number | null) => site === null;
    return {
      ...facts,
      origins: await this.origins(kept.filter((m) => isOutside(m.fromSite) && !isOutside(m.toSite))),
      where: await this.where(person, facts),
      went: await this.went(person, kept),
      used: kept
        .filter((m) => !isOutside(m.fromSite) && isOutside(m.toSite) && m.toKind !== 'customer')
        .map((m): TraceUsedDto => ({
          kind: USED[m.toKind] ?? 'count',
          document: m.document,
          why: m.reason,
          units: m.units,
          at: m.at,
          by: m.by,
        })),
      madeFrom: await this.kin(
        kept.filter((m) => m.fromKind === 'assembly'),
        'to',
      ),
      madeInto: await this.kin(
        kept.filter((m) => m.toKind === 'assembly'),
        'from',
      ),
      recalls: await rows(
        this.source,
        'SELECT r.id, r.reason, w.name AS `by`, r.held_at AS at, r.freed_at AS freedAt, r.told_at AS toldAt, r.version FROM lot_recall r LEFT JOIN person w ON w.id = r.person_id WHERE r.lot_id = ? ORDER BY r.id DESC',
        [facts.lotId],
      ),
      movements: all.length,
    };
  }

  private async origins(came: readonly LotMovement[]): Promise<TraceOriginDto[]> {
    const documents = [...new Set(came.flatMap((m) => (m.document === null ? [] : [m.document])))];
    const named = await rows<{ document: string; who: string | null }>(
      this.source,
      `SELECT o.code AS document, s.name AS who FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id WHERE o.code IN (?)
       UNION ALL SELECT a.code, s.name FROM arrival a LEFT JOIN supplier s ON s.id = a.supplier_id WHERE a.code IN (?)
       UNION ALL SELECT r.code, r.customer FROM customer_return r WHERE r.code IN (?)`,
      [
        ['', ...documents],
        ['', ...documents],
        ['', ...documents],
      ],
    );
    const whoOf = new Map(named.map((n) => [n.document, n.who]));
    return came.map((m) => ({
      kind: m.task === 'open' ? 'opening' : (ORIGIN[m.fromKind] ?? 'other'),
      document: m.document,
      who: m.document === null ? null : (whoOf.get(m.document) ?? null),
      units: m.units,
      at: m.at,
      by: m.by,
    }));
  }

  /** Where it lies now, at a person's sites, and for which order where it is in hands. */
  where(person: Person, { itemId, lotId }: Pick<LotFacts, 'itemId' | 'lotId'>): Promise<TraceWhereDto[]> {
    return rows<TraceWhereDto>(
      this.source,
      `SELECT p.code AS place, p.kind, s.name AS site, b.stock_condition AS \`condition\`, b.units,
         COALESCE((SELECT o.code FROM parcel c JOIN sales_order o ON o.id = c.order_id WHERE c.place_id = p.id LIMIT 1), (SELECT o.code FROM tote_use u JOIN sales_order o ON o.id = u.order_id WHERE u.tote_id = p.id AND u.ended_at IS NULL LIMIT 1)) AS \`order\`
       FROM balance b JOIN place p ON p.id = b.place_id JOIN site s ON s.id = p.site_id WHERE b.item_id = ? AND b.lot_id = ? AND b.units > 0 AND p.site_id IN (?) ORDER BY s.name, p.walk_order, p.code`,
      [itemId, lotId, [0, ...person.siteIds]],
    );
  }

  private async went(person: Person, kept: readonly LotMovement[]): Promise<TraceWentDto[]> {
    const out = kept.filter((m) => m.toKind === 'customer');
    const codes = [...new Set(out.flatMap((m) => (m.document === null ? [] : [m.document])))];
    const orders = await rows<{ code: string; customer: string; email: string; phone: string }>(
      this.source,
      'SELECT code, customer, email, phone FROM sales_order WHERE code IN (?) AND site_id IN (?)',
      [
        ['', ...codes],
        [0, ...person.siteIds],
      ],
    );
    const parcels = await rows<{ place: string; code: string; tracking: string | null }>(
      this.source,
      'SELECT p.code AS place, c.code, c.tracking FROM parcel c JOIN place p ON p.id = c.place_id WHERE p.code IN (?)',
      [['', ...out.map((m) => m.fromPlace)]],
    );
    const returns = await rows<{ code: string; order: string | null }>(
      this.source,
      'SELECT r.code, o.code AS `order` FROM customer_return r LEFT JOIN sales_order o ON o.id = r.order_id WHERE r.code IN (?)',
      [['', ...kept.filter((m) => m.fromKind === 'customer').flatMap((m) => m.document ?? [])]],
    );
    const orderOf = new Map(returns.map((r) => [r.code, r.order]));
    const back = new Map<string, number>();
    for (const m of kept.filter((x) => x.fromKind === 'customer')) {
      const order = orderOf.get(m.document ?? '') ?? '';
      back.set(order, (back.get(order) ?? 0) + m.units);
    }
    // Those of other sites are for whoever works there.
    const own = out.filter((m) => orders.some((o) => o.code === m.document));
    return own.map((m) => {
      const order = orders.find((o) => o.code === m.document);
      const parcel = parcels.find((p) => p.place === m.fromPlace);
      return {
        order: m.document ?? '',
        customer: order?.customer ?? '',
        email: order?.email ?? '',
        phone: order?.phone ?? '',
        parcel: parcel?.code ?? null,
        tracking: parcel?.tracking ?? null,
        units: m.units,
        back: back.get(m.document ?? '') ?? 0,
        at: m.at,
      };
    });
  }

  /** The goods at the other side of an assembly, by its document: what went in, or what came out. */
  private async kin(of: readonly LotMovement[], side: 'from' | 'to'): Promise<TraceKinDto[]> {
    const documents = [...new Set(of.flatMap((m) => (m.document === null ? [] : [m.document])))];
    if (documents.length === 0) return [];
    const found = await rows<Omit<TraceKinDto, 'units'> & { units: string }>(
      this.source,
      `SELECT i.sku, i.name AS item, l.code AS lot, m.document, SUM(m.units) AS units FROM movement m JOIN place p ON p.id = m.${side}_place_id AND p.kind = 'assembly' JOIN item i ON i.id = m.item_id LEFT JOIN lot l ON l.id = m.lot_id
       WHERE m.document IN (?) AND NOT EXISTS (SELECT 1 FROM movement r WHERE r.reverses_id = m.id) AND m.reverses_id IS NULL GROUP BY m.document, m.item_id, m.lot_id ORDER BY m.document, i.name`,
      [documents],
    );
    return found.map((f) => ({ ...f, units: num(f.units) }));
  }
}

/** Whether goods in a place are an order's already, and are stopped by its order rather than held. */
export const isInHands = (kind: string): boolean => isFor(kind, 'container') || isFor(kind, 'picked') || kind === 'packing-table';
