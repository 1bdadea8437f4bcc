import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { notFound, num, one, type Person, rows, type Tx } from '../platform/index.js';
import type { CarrierRow, Shipment } from './carrier-row.js';
import type { CarrierDto, CarrierServiceDto, CarrierSheetDto, LaneOfSiteDto } from './carriers.dto.js';

type Head = Omit<CarrierDto, 'lanes' | 'hasKey' | 'services'> & { id: number; hasKey: number | string; services: number | string };

const FIELDS = `c.id, c.code, c.name, c.base_url AS baseUrl, c.api_key IS NOT NULL AS hasKey, c.version,
  (SELECT COUNT(*) FROM carrier_service s WHERE s.carrier_id = c.id) AS services`;

/** Reads carriers. */
@Injectable()
export class CarriersQueries {
  constructor(private readonly source: DataSource) {}

  /** Carriers, with their lanes at the person's sites. */
  async list(person: Person): Promise<CarrierDto[]> {
    const [found, lanes] = await Promise.all([
      rows<Head>(this.source, `SELECT ${FIELDS} FROM carrier c ORDER BY c.name`),
      rows<LaneOfSiteDto & { carrierId: number }>(
        this.source,
        'SELECT l.carrier_id AS carrierId, l.site_id AS siteId, s.name AS site, p.code AS place FROM carrier_lane l JOIN site s ON s.id = l.site_id JOIN place p ON p.id = l.place_id WHERE l.site_id IN (?) ORDER BY s.id',
        [[0, ...person.siteIds]],
      ),
    ]);
    return found.map(({ id, ...c }) => ({
      ...c,
      hasKey: num(c.hasKey) === 1,
      services: num(c.services),
      lanes: lanes.filter((l) => l.carrierId === id).map(({ carrierId: _, ...l }) => l),
    }));
  }

  async sheet(person: Person, code: string): Promise<CarrierSheetDto> {
    const found = (await this.list(person)).find((c) => c.code === code);
    if (!found) throw notFound(`Carrier ${code}`);
    const { id } = await this.byCode(this.source, code);
    const [ownServices, departures, waiting] = await Promise.all([
      this.services(this.source, id),
      rows<CarrierSheetDto['departures'][number]>(
        this.source,
        `SELECT s.name AS site, TIME_FORMAT(d.leaves_at, '%H:%i') AS leavesAt FROM departure d JOIN site s ON s.id = d.site_id WHERE d.carrier_id = ? AND d.site_id IN (?) ORDER BY d.leaves_at`,
        [id, [0, ...person.siteIds]],
      ),
      one<{ units: string }>(
        this.source,
        `SELECT COUNT(*) AS units FROM parcel p JOIN sales_order o ON o.id = p.order_id WHERE p.carrier_id = ? AND p.state IN ('label-asked', 'labelled') AND o.site_id IN (?)`,
        [id, [0, ...person.siteIds]],
      ),
    ]);
    return { ...found, ownServices, departures, waiting: num(waiting?.units ?? 0) };
  }

  async services(tx: Pick<Tx, 'query'>, carrierId: number): Promise<CarrierServiceDto[]> {
    const found = await rows<CarrierServiceDto>(
      tx,
      'SELECT code, name, days, price, most_g AS mostG FROM carrier_service WHERE carrier_id = ? ORDER BY price, code',
      [carrierId],
    );
    return found.map((s) => ({ ...s, price: s.price.replace(/\.?0+$/, '') || '0' }));
  }

  /** The carriers that fetch at a site, each with its lane there. */
  atSite(siteId: number): Promise<CarrierRow[]> {
    return rows<CarrierRow>(
      this.source,
      'SELECT c.id, c.code, c.name, c.base_url, c.api_key, l.place_id AS lane_place_id FROM carrier c JOIN carrier_lane l ON l.carrier_id = c.id WHERE l.site_id = ? ORDER BY c.code',
      [siteId],
    );
  }

  /** Length, width and height of a box, in millimetres; null where it is none of ours. */
  async sizeOf(tx: Pick<Tx, 'query'>, carton: string | null): Promise<Shipment['sizeMm']> {
    const size = await one<{ l: number; w: number; h: number }>(
      tx,
      'SELECT length_mm AS l, width_mm AS w, height_mm AS h FROM carton WHERE code = ?',
      [carton],
    );
    return size ? [size.l, size.w, size.h] : null;
  }

  /** A carrier as it is spoken to, apart from any site. Throws where none has that code. */
  async spokenTo(code: string): Promise<CarrierRow> {
    const found = await one<CarrierRow>(
      this.source,
      'SELECT id, code, name, base_url, api_key, 0 AS lane_place_id FROM carrier WHERE code = ?',
      [code],
    );
    if (!found) throw notFound(`Carrier ${code}`);
    return found;
  }

  /** A carrier as it is spoken to, by its number; undefined where it is gone. */
  byId(id: number): Promise<CarrierRow | undefined> {
    return one<CarrierRow>(this.source, 'SELECT id, code, name, base_url, api_key, 0 AS lane_place_id FROM carrier WHERE id = ?', [id]);
  }

  /** Throws where no carrier has that code. */
  async byCode(tx: Pick<Tx, 'query'>, code: string): Promise<{ id: number; code: string; name: string }> {
    const found = await one<{ id: number; code: string; name: string }>(tx, 'SELECT id, code, name FROM carrier WHERE code = ?', [code]);
    if (!found) throw notFound(`Carrier ${code}`);
    return found;
  }
}
