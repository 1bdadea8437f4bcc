import { Injectable } from '@nestjs/common';
import { DepartureBoard } from '@vectrum/core/promise';
import type { LoadTask } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { CalendarQueries } from '../company/index.js';
import { notFound, rows, type Tx } from '../platform/index.js';
import type { LaneDto, MissedOrderDto, UnroutedParcelDto, WaitingParcelDto } from './dispatch.dto.js';

type Found = Omit<WaitingParcelDto, 'leavesAt' | 'missed' | 'loaded'> & { loaded: number | string };
type Lane = Omit<LaneDto, 'parcels' | 'collectsAt' | 'timeZone'>;

/** Lanes without a departure come last. */
const leavesBy = (lane: Pick<LaneDto, 'collectsAt'>) => lane.collectsAt?.getTime() ?? Number.MAX_SAFE_INTEGER;

/** What stands in the dispatch lanes, which van each parcel is meant for, and what has missed its own. */
@Injectable()
export class LanesQueries {
  constructor(
    private readonly source: DataSource,
    private readonly calendars: CalendarQueries,
  ) {}

  async lanes(siteIds: readonly number[]): Promise<LaneDto[]> {
    return this.read(this.source, siteIds, new Date());
  }

  /** One carrier's lane at a site, to be loaded from. `key` is the site's number and the carrier's code: 1-HARRIER. */
  async task(tx: Tx, key: string): Promise<LoadTask> {
    const [, site = '', carrier = ''] = /^(\d{1,9})-([A-Z0-9-]{1,20})$/.exec(key.toUpperCase()) ?? [];
    const lanes = await this.read(tx, [Number(site)], new Date());
    const lane = lanes.find((l) => l.carrier === carrier);
    if (!lane) throw notFound(`A lane of carrier ${carrier || key.slice(0, 20)} at that site`);
    return {
      siteId: lane.siteId,
      carrier: lane.carrier,
      carrierName: lane.name,
      lane: lane.lane,
      van: lane.collectsAt?.toISOString() ?? null,
      parcels: lane.parcels.map((p) => ({
        code: p.code,
        order: p.order,
        customer: p.customer,
        tracking: p.tracking,
        labelled: p.state === 'labelled',
        held: p.held,
        loaded: p.loaded,
        leavesAt: p.leavesAt?.toISOString() ?? null,
        missed: p.missed,
      })),
      elsewhere: lanes.flatMap((l) =>
        l === lane ? [] : l.parcels.map(({ code, tracking }) => ({ code, tracking, carrierName: l.name, lane: l.lane })),
      ),
    };
  }

  /** Closed parcels for which no carrier is known yet: they stand in no lane. */
  async unrouted(siteIds: readonly number[]): Promise<UnroutedParcelDto[]> {
    return rows<UnroutedParcelDto>(
      this.source,
      `SELECT p.code, o.code AS \`order\`, o.customer, COALESCE((SELECT t.code FROM place t WHERE t.id = w.parent_id), '') AS place, p.label_asked_at AS since, o.promised_at AS promisedAt,
         (SELECT x.last_error FROM outbox x WHERE x.kind = 'carrier.label' AND x.document = o.code AND x.state = 'failing' LIMIT 1) AS trouble
       FROM parcel p JOIN sales_order o ON o.id = p.order_id JOIN place w ON w.id = p.place_id
       WHERE p.state = 'label-asked' AND p.carrier_id IS NULL AND w.site_id IN (?) ORDER BY p.id`,
      [[0, ...siteIds]],
    );
  }

  /** Orders that are being worked on and whose promised van has gone without them, or without all of them. */
  async missed(siteIds: readonly number[]): Promise<MissedOrderDto[]> {
    const found = await rows<Omit<MissedOrderDto, 'nextAt'>>(
      this.source,
      `SELECT o.code, o.customer, o.state, o.promised_at AS promisedAt, c.name AS channel, o.site_id AS siteId,
         (SELECT GROUP_CONCAT(p.code ORDER BY p.number SEPARATOR ', ') FROM parcel p WHERE p.order_id = o.id AND p.state IN ('label-asked','labelled')) AS parcels
       FROM sales_order o JOIN channel c ON c.id = o.channel_id
       WHERE o.state IN ('released','picking','picked','packed') AND o.promised_at < UTC_TIMESTAMP() AND o.site_id IN (?)
       ORDER BY o.promised_at, o.id`,
      [[0, ...siteIds]],
    );
    const boards = await this.calendars.boards(siteIds);
    return found.map((o) => ({ ...o, nextAt: boards.get(o.siteId)?.next()?.at ?? null }));
  }

  private async read(tx: Pick<Tx, 'query'>, siteIds: readonly number[], now: Date): Promise<LaneDto[]> {
    const sites = [0, ...siteIds];
    const lanes = await rows<Lane>(
      tx,
      `SELECT c.code AS carrier, c.name, p.code AS lane, l.site_id AS siteId FROM carrier c JOIN carrier_lane l ON l.carrier_id = c.id JOIN place p ON p.id = l.place_id WHERE l.site_id IN (?) ORDER BY c.name, p.code`,
      [sites],
    );
    const parcels = await rows<Found>(
      tx,
      `SELECT p.code, o.code AS \`order\`, o.customer, p.state, w.site_id AS siteId, c.code AS carrier, c.name AS carrierName, p.service, p.weight_g AS weightG, p.tracking, COALESCE(p.labelled_at, p.label_asked_at) AS since, o.promised_at AS promisedAt, o.hold_reason AS held, p.loaded_at IS NOT NULL AS loaded,
         (SELECT x.last_error FROM outbox x WHERE x.kind = 'carrier.label' AND x.document = o.code AND x.state = 'failing' LIMIT 1) AS trouble
       FROM parcel p JOIN sales_order o ON o.id = p.order_id JOIN carrier c ON c.id = p.carrier_id JOIN place w ON w.id = p.place_id
       WHERE p.state IN ('label-asked','labelled') AND w.site_id IN (?) ORDER BY o.promised_at, p.id`,
      [sites],
    );
    const calendars = new Map<number, Awaited<ReturnType<CalendarQueries['of']>>>();
    for (const id of new Set(lanes.map((l) => l.siteId))) calendars.set(id, await this.calendars.of(tx, id));
    return lanes
      .map((lane) => {
        const calendar = calendars.get(lane.siteId);
        const vans = calendar?.departures.filter((v) => v.carrier === lane.carrier) ?? [];
        const board = calendar && vans.length > 0 ? new DepartureBoard(now, { ...calendar, departures: vans }) : null;
        return {
          ...lane,
          timeZone: calendar?.timeZone ?? 'UTC',
          collectsAt: board?.next()?.at ?? null,
          parcels: parcels
            .filter((p) => p.carrier === lane.carrier && p.siteId === lane.siteId)
            .map((p) => ({
              ...p,
              loaded: Number(p.loaded) === 1,
              leavesAt: board?.toCatch(p.promisedAt) ?? null,
              missed: p.promisedAt < now,
            })),
        };
      })
      .sort((a, b) => leavesBy(a) - leavesBy(b));
  }
}
