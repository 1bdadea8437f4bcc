import { Injectable } from '@nestjs/common';
import type { HandOverCommand } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { CarriersQueries } from '../carriers/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { type Act, badState, CommandLog, insert, mustBeAt, nextCode, notFound, one, Outbox, PAPER, pageOf, type Person, rows, task, type Tx, type Window, Work } from '../platform/index.js'; // prettier-ignore
import { SettingsService } from '../settings/index.js';
import type { HandedOverDto, HandOverDto, HandOverPageDto, HandOverRowDto } from './dispatch.dto.js';
import type { HandOverList, handOverListPdf } from './hand-over-list.pdf.js';
import { lockParcels, type ParcelRow } from './lock-parcels.js';
import { ShippingService } from './shipping.service.js';

const LIST = task<typeof handOverListPdf>('dispatch/handOverListPdf', ...PAPER);

type Taken = Pick<HandOverDto, 'carrier' | 'parcels'> & { driver: string | null; signature: string | null };

/** The hand-over to a carrier, and its list: from then on the goods are gone. */
@Injectable()
export class HandOverService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly shipping: ShippingService,
    private readonly outbox: Outbox,
    private readonly activity: ActivityService,
    private readonly carriers: CarriersQueries,
    private readonly settings: SettingsService,
    private readonly work: Work,
  ) {}

  /** The driver takes these parcels: stock leaves the ledger, shop and customer are told. All of them, or none. */
  handOver(act: Act, input: HandOverDto): Promise<HandedOverDto> {
    return this.commands.run(act, 'dispatch.hand-over', input, async (tx) => {
      const { code, parcels } = await this.take(tx, act, { ...input, driver: input.driver?.trim() || null, signature: null });
      return { code, parcels };
    });
  }

  /** The same from a phone at the door, with the driver's name and signature. */
  async signed(tx: Tx, act: Act, command: HandOverCommand): Promise<FloorAnswerDto> {
    mustBeAt(act.person, command.siteId);
    const { activityId } = await this.take(tx, act, command);
    return { activityId };
  }

  private async take(tx: Tx, act: Act, input: Taken): Promise<HandedOverDto & { activityId: number }> {
    const carrier = await this.carriers.byCode(tx, input.carrier.toUpperCase());
    const codes = [...new Set(input.parcels.map((p) => p.toUpperCase()))];
    const parcels = await lockParcels(tx, codes);
    const siteId = await this.mustGo(tx, act, carrier, codes, parcels);
    const code = await nextCode(tx, 'H');
    await insert(tx, 'hand_over', {
      code,
      carrier_id: carrier.id,
      site_id: siteId,
      person_id: act.person.id || null,
      driver: input.driver,
      signature: input.signature,
    });
    for (const parcel of parcels) await this.shipping.send(tx, act, parcel, { name: carrier.name, site_id: siteId }, code);
    await this.outbox.send(tx, `carrier:${carrier.code}/${code}`, 'carrier.manifest', { handOver: code }, { siteId, document: code });
    const activityId = await this.activity.record(tx, act, {
      kind: 'hand-over',
      glyph: 'go',
      title: `${parcels.length} ${parcels.length === 1 ? 'parcel' : 'parcels'} handed to ${carrier.name}`,
      detail: `${input.driver ? `${input.driver}: ` : ''}${codes.slice(0, 6).join(', ')}`,
      document: code,
      siteId,
    });
    return { code, parcels: parcels.length, activityId };
  }

  /** Refuses what may not go, and returns the one site at which all of it stands. */
  private async mustGo(
    tx: Tx,
    act: Act,
    carrier: { id: number; name: string },
    codes: readonly string[],
    parcels: readonly ParcelRow[],
  ): Promise<number> {
    for (const code of codes) {
      const parcel = parcels.find((p) => p.code === code);
      if (!parcel) throw notFound(`Parcel ${code} for ${carrier.name}`);
      if (parcel.state === 'gone') throw badState(`${code} was handed over already`);
      if (parcel.state === 'void') throw badState(`${code} is cancelled. Take it off the van`);
      if (parcel.state !== 'labelled') throw badState(`${code} has no label yet`);
      if (parcel.carrier_id !== carrier.id) throw notFound(`Parcel ${code} for ${carrier.name}`);
    }
    const siteId = parcels[0]?.site_id ?? 0;
    mustBeAt(act.person, siteId);
    const elsewhere = parcels.find((p) => p.site_id !== siteId);
    if (elsewhere) throw badState(`${elsewhere.code} stands at another site. Hand over the parcels of one van at a time`);
    const held = await one<{ code: string; why: string }>(
      tx,
      'SELECT o.code, o.hold_reason AS why FROM sales_order o WHERE o.id IN (?) AND o.hold_reason IS NOT NULL ORDER BY o.id LIMIT 1',
      [[0, ...parcels.map((p) => p.order_id)]],
    );
    if (held) throw badState(`${held.code} is held: ${held.why}. Leave its parcels here`);
    return siteId;
  }

  /** All that ever went, newest first. */
  async page(siteIds: readonly number[], window: Window): Promise<HandOverPageDto> {
    const { rows: found, total } = await pageOf<Omit<HandOverRowDto, 'signed'> & { signed: number | string }>(
      this.source,
      {
        select:
          'h.code, c.name AS carrier, h.at, h.driver, w.name AS person, (SELECT COUNT(*) FROM parcel p WHERE p.hand_over = h.code) AS parcels, h.signature IS NOT NULL AS signed',
        from: 'FROM hand_over h JOIN carrier c ON c.id = h.carrier_id LEFT JOIN person w ON w.id = h.person_id WHERE h.site_id IN (?)',
        params: [[0, ...siteIds]],
        order: 'h.at DESC, h.code DESC',
      },
      window,
    );
    return { rows: found.map((h) => ({ ...h, parcels: Number(h.parcels), signed: Number(h.signed) === 1 })), total };
  }

  /** The list of a hand-over, signed or for the driver to sign. */
  async list(code: string, person: Person): Promise<Buffer> {
    const head = await one<{ carrier: string; site: string; siteId: number; timeZone: string; at: Date; driver: string | null; signature: string | null }>(
      this.source,
      `SELECT c.name AS carrier, s.name AS site, s.id AS siteId, s.time_zone AS timeZone, h.at, h.driver, h.signature
       FROM hand_over h JOIN carrier c ON c.id = h.carrier_id JOIN site s ON s.id = h.site_id WHERE h.code = ?`,
      [code],
    ); // prettier-ignore
    if (!head) throw notFound(`Hand-over ${code}`);
    mustBeAt(person, head.siteId);
    const parcels = await rows<HandOverList['parcels'][number]>(
      this.source,
      `SELECT p.code, o.customer, CONCAT(o.city, ' ', o.postcode) AS place, p.service, p.weight_g AS weightG, p.tracking
       FROM parcel p JOIN sales_order o ON o.id = p.order_id WHERE p.hand_over = ? ORDER BY p.code`,
      [code],
    );
    const inZone = (style: Intl.DateTimeFormatOptions) =>
      new Intl.DateTimeFormat('en-GB', { ...style, timeZone: head.timeZone }).format(head.at);
    const [on, at] = [inZone({ dateStyle: 'medium' }), inZone({ timeStyle: 'short' })];
    const weightG = parcels.reduce((sum, p) => sum + p.weightG, 0);
    const { carrier, site, driver, signature } = head;
    return this.work.run(LIST, { code, carrier, site, on, at, driver, signature, weightG, parcels }, await this.settings.letterhead());
  }
}
