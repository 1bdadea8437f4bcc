import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  find,
  insert,
  insertMany,
  mustBeAt,
  mustMatch,
  notFound,
  one,
  remove,
  type Tx,
  update,
} from '../platform/index.js';
import type { EditCarrierDto, NewCarrierDto } from './carriers.dto.js';

/** Makes and changes carriers: how they are reached, where their parcels stand, what they offer. */
@Injectable()
export class CarriersService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  add(act: Act, input: NewCarrierDto): Promise<{ code: string }> {
    return this.commands.run(act, 'carrier.add', hidden(input), async (tx) => {
      const code = input.code.toUpperCase();
      if (await find(tx, 'carrier', { code })) throw badForm({ code: `${code} is taken. Choose another code` });
      mustBeReached(input, false);
      const id = await insert(tx, 'carrier', {
        code,
        name: input.name.trim(),
        base_url: input.baseUrl ?? null,
        api_key: input.apiKey ?? null,
      });
      await this.writeLanes(tx, act, id, input);
      await this.writeServices(tx, id, input);
      await this.activity.record(tx, act, { kind: 'carrier', glyph: 'full', title: `Carrier ${input.name.trim()} made`, document: code });
      return { code };
    });
  }

  edit(act: Act, code: string, version: number, input: EditCarrierDto): Promise<{ code: string }> {
    return this.commands.run(act, 'carrier.edit', { code, version, ...hidden(input) }, async (tx) => {
      const carrier = await find(tx, 'carrier', { code }, 'lock');
      if (!carrier) throw notFound(`Carrier ${code}`);
      mustMatch(carrier.version, version);
      mustBeReached(input, carrier.api_key !== null);
      await update(
        tx,
        'carrier',
        { id: carrier.id },
        {
          name: input.name.trim(),
          base_url: input.baseUrl ?? null,
          ...(input.apiKey ? { api_key: input.apiKey } : {}),
          version: version + 1,
        },
      );
      await this.writeLanes(tx, act, carrier.id, input);
      await this.writeServices(tx, carrier.id, input);
      await this.activity.record(tx, act, {
        kind: 'carrier',
        glyph: 'full',
        title: `Carrier ${input.name.trim()} changed`,
        document: code,
      });
      return { code };
    });
  }

  /** Replaces the lanes at the sites where the person works; those elsewhere stay. */
  private async writeLanes(tx: Tx, act: Act, carrierId: number, { lanes }: EditCarrierDto): Promise<void> {
    if (new Set(lanes.map((l) => l.siteId)).size !== lanes.length)
      throw badForm({ lanes: 'A carrier has one lane at a site. Keep one of them' });
    for (const { siteId } of lanes) mustBeAt(act.person, siteId);
    const mine = act.person.siteIds;
    const gone = mine.filter((site) => !lanes.some((l) => l.siteId === site));
    for (const site_id of gone) await this.mustBeEmpty(tx, carrierId, site_id);
    await remove(tx, 'carrier_lane', { carrier_id: carrierId, site_id: [0, ...mine] });
    for (const { siteId, place } of lanes) {
      const found = await find(tx, 'place', { code: place.trim().toUpperCase(), site_id: siteId });
      if (!found)
        throw badForm({ lanes: `There is no place ${place.toUpperCase()} at that site. Make a dispatch lane under Shelves first` });
      if (found.kind !== 'dispatch-lane')
        throw badForm({ lanes: `${found.code} is not a dispatch lane. Choose one, or make it under Shelves` });
      await insert(tx, 'carrier_lane', { carrier_id: carrierId, site_id: siteId, place_id: found.id });
    }
  }

  /** Parcels that wait for a carrier must be able to go: its lane stays until they are gone. */
  private async mustBeEmpty(tx: Tx, carrierId: number, siteId: number): Promise<void> {
    const waits = await one<{ code: string }>(
      tx,
      `SELECT p.code FROM parcel p JOIN place w ON w.id = p.place_id WHERE p.carrier_id = ? AND w.site_id = ? AND p.state IN ('label-asked', 'labelled') LIMIT 1`,
      [carrierId, siteId],
    );
    if (waits) throw badForm({ lanes: `${waits.code} waits for this carrier. Hand it over first, then take the lane away` });
  }

  private async writeServices(tx: Tx, carrierId: number, { services }: EditCarrierDto): Promise<void> {
    const codes = services.map((s) => s.code.toLowerCase());
    if (new Set(codes).size !== codes.length) throw badForm({ services: 'Two services have the same code' });
    await remove(tx, 'carrier_service', { carrier_id: carrierId });
    await insertMany(
      tx,
      'carrier_service',
      ['carrier_id', 'code', 'name', 'days', 'price', 'most_g'],
      services.map((s, i) => [carrierId, codes[i], s.name.trim(), s.days, s.price, s.mostG]),
    );
  }
}

/** What is kept of a command says nothing of a key. */
const hidden = <T extends EditCarrierDto>({ apiKey, ...input }: T) => ({ ...input, newKey: Boolean(apiKey) });

function mustBeReached(input: EditCarrierDto, hasKey: boolean): void {
  if (input.baseUrl && !input.apiKey && !hasKey) throw badForm({ apiKey: 'Type the key that the carrier gave you for its system' });
  if (!input.baseUrl && input.services.length === 0)
    throw badForm({ services: 'Say at least one service, or the address at which the carrier’s system answers' });
}
