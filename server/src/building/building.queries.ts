import { Injectable } from '@nestjs/common';
import { buildable } from '@vectrum/core/catalogue';
import { decimalText, dividedBy, micro } from '@vectrum/core/money';
import type { GatherTask } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import {
  badState,
  likeAny,
  mapPage,
  mustBeAt,
  notFound,
  num,
  one,
  pageOf,
  type Person,
  rows,
  type Tx,
  type Window,
} from '../platform/index.js';
import { binsFor } from '../transfers/index.js';
import type { BuildableDto, BuildDto, BuildPageDto, BuildPartDto, BuildRowDto } from './building.dto.js';

const HEAD = `b.id, b.code, s.name AS site, i.sku, i.name AS item, b.state, b.units, b.built_units AS builtUnits, b.apart AS isApart, m.name AS madeBy, b.made_at AS madeAt`;
const FROM = 'FROM build b JOIN site s ON s.id = b.site_id JOIN item i ON i.id = b.item_id LEFT JOIN person m ON m.id = b.made_by_id';
type Head = Omit<BuildRowDto, 'isApart'> & { id: number; isApart: number };
const rowOf = ({ id: _, ...h }: Head): BuildRowDto => ({ ...h, isApart: h.isApart === 1 });

/** Reads what is built here. */
@Injectable()
export class BuildingQueries {
  constructor(private readonly source: DataSource) {}

  /** What is under way first, the newest first. */
  async list(siteIds: readonly number[], filter: { q: string; all: boolean }, window: Window): Promise<BuildPageDto> {
    const page = await pageOf<Head>(
      this.source,
      {
        select: HEAD,
        from: `${FROM} WHERE b.site_id IN (?) ${filter.all ? '' : `AND b.state IN ('planned','gathering')`} ${filter.q ? 'AND (b.code LIKE ? OR i.name LIKE ? OR i.sku LIKE ?)' : ''}`,
        params: [[0, ...siteIds], ...(filter.q ? Array.from({ length: 3 }, () => likeAny(filter.q)) : [])],
        order: `b.state IN ('built','cancelled'), b.id DESC`,
      },
      window,
    );
    return mapPage(page, rowOf);
  }

  async sheet(person: Person, code: string): Promise<BuildDto> {
    const head = await one<Head & Omit<BuildDto, keyof BuildRowDto | 'parts' | 'lots' | 'unitCost'> & { placeId: number }>(
      this.source,
      `SELECT ${HEAD}, b.site_id AS siteId, b.item_id AS itemId, i.tracking, b.note, b.version, w.name AS builtBy, b.built_at AS builtAt, b.labour_minutes AS labourMinutes, b.labour_cost AS labourCost, b.parts_cost AS partsCost, i.labour AS usualLabour, b.place_id AS placeId
       ${FROM} LEFT JOIN person w ON w.id = b.built_by_id WHERE b.code = ?`,
      [code],
    );
    if (!head) throw notFound(`Assembly ${code.slice(0, 20)}`);
    mustBeAt(person, head.siteId);
    const { placeId: _, labourCost, partsCost, usualLabour, ...rest } = head;
    const parts = await rows<Omit<BuildPartDto, 'free' | 'lots'> & { free: string }>(
      this.source,
      `SELECT p.id AS partId, p.item_id AS itemId, i.sku, i.name AS item, p.units, p.gathered_units AS gathered, p.used_units AS used, p.scrapped_units AS scrapped, COALESCE(s.on_hand - s.held - s.reserved, 0) AS free
       FROM build_part p JOIN item i ON i.id = p.item_id LEFT JOIN site_stock s ON s.item_id = p.item_id AND s.site_id = ? WHERE p.build_id = ? ORDER BY i.name`,
      [head.siteId, head.id],
    );
    const lots = await rows<{ itemId: number; lot: string; came: number }>(
      this.source,
      `SELECT DISTINCT m.item_id AS itemId, l.code AS lot, f.kind = 'assembly' AS came FROM movement m JOIN lot l ON l.id = m.lot_id JOIN place f ON f.id = m.from_place_id WHERE m.document = ? AND m.task = 'build' AND m.reverses_id IS NULL AND NOT EXISTS (SELECT 1 FROM movement r WHERE r.reverses_id = m.id)`,
      [code],
    );
    const cost =
      person.seesCosts && labourCost !== null && partsCost !== null && head.builtUnits > 0
        ? decimalText(dividedBy(micro(partsCost) + micro(labourCost), head.builtUnits))
        : null;
    return {
      ...rest,
      ...rowOf(head),
      labourCost: person.seesCosts ? labourCost : null,
      partsCost: person.seesCosts ? partsCost : null,
      usualLabour: person.seesCosts ? usualLabour : null,
      unitCost: cost,
      lots: lots.filter((l) => num(l.came) === 1 && l.itemId === head.itemId).map((l) => l.lot),
      parts: parts.map((p) => ({ ...p, free: num(p.free), lots: lots.filter((l) => l.itemId === p.itemId).map((l) => l.lot) })),
    };
  }

  /** How many of each assembly can be built at each site of what is free, and what allows no more. */
  async buildable(siteIds: readonly number[]): Promise<BuildableDto[]> {
    const found = await rows<{
      itemId: number;
      sku: string;
      item: string;
      siteId: number;
      site: string;
      part: string;
      partSku: string;
      partId: number;
      units: number;
      free: string;
      expectedOn: string | null;
    }>(
      this.source,
      `SELECT i.id AS itemId, i.sku, i.name AS item, s.id AS siteId, s.name AS site, q.name AS part, q.sku AS partSku, q.id AS partId, p.units, COALESCE(k.on_hand - k.held - k.reserved, 0) AS free,
         (SELECT MIN(o.expected_on) FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id WHERE l.item_id = q.id AND l.open_units > 0 AND o.state IN ('placed','part-received') AND o.site_id = s.id) AS expectedOn
       FROM item i JOIN item_part p ON p.item_id = i.id JOIN item q ON q.id = p.part_item_id JOIN site s ON s.id IN (?) LEFT JOIN site_stock k ON k.item_id = q.id AND k.site_id = s.id WHERE i.kind = 'assembly' ORDER BY i.name, s.id`,
      [[0, ...siteIds]],
    );
    const groups = new Map<string, typeof found>();
    for (const f of found) groups.set(`${f.itemId}/${f.siteId}`, [...(groups.get(`${f.itemId}/${f.siteId}`) ?? []), f]);
    return [...groups.values()].flatMap((parts): BuildableDto[] => {
      const [first] = parts;
      if (!first) return [];
      const scarce = [...parts].sort((a, b) => Math.floor(num(a.free) / a.units) - Math.floor(num(b.free) / b.units))[0];
      return [
        {
          sku: first.sku,
          item: first.item,
          site: first.site,
          siteId: first.siteId,
          buildable: buildable(parts.map((p) => ({ available: num(p.free), units: p.units }))),
          scarce: scarce?.part ?? null,
          scarceSku: scarce?.partSku ?? null,
          expectedOn: scarce?.expectedOn ?? null,
        },
      ];
    });
  }

  /** The parts of an assembly, to be gathered with a phone. */
  async gather(tx: Tx, code: string): Promise<GatherTask> {
    const build = await one<{ id: number; code: string; siteId: number; state: string; note: string; item: string }>(
      tx,
      'SELECT b.id, b.code, b.site_id AS siteId, b.state, b.note, i.name AS item FROM build b JOIN item i ON i.id = b.item_id WHERE b.code = ?',
      [code],
    );
    if (!build) throw notFound(`Assembly ${code.slice(0, 20)}`);
    if (build.state !== 'planned' && build.state !== 'gathering')
      throw badState(build.state === 'built' ? `${code} is built` : `${code} was called off`);
    const parts = await rows<{ lineId: number; itemId: number; units: number; gathered: number }>(
      tx,
      'SELECT p.id AS lineId, p.item_id AS itemId, p.units, p.gathered_units AS gathered FROM build_part p JOIN item i ON i.id = p.item_id WHERE p.build_id = ? ORDER BY i.name',
      [build.id],
    );
    const bins = await binsFor(
      tx,
      code,
      build.siteId,
      parts.map((p) => p.itemId),
    );
    return {
      document: build.code,
      siteId: build.siteId,
      to: build.item,
      note: build.note,
      lines: parts.map((p) => ({ ...p, bins: bins.get(p.itemId) ?? [] })),
      parcels: [],
    };
  }
}
