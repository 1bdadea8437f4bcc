import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { CarrierDesk, type CarrierRow, CarriersQueries, type RatesDto, type Shipment } from '../carriers/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  inTransaction,
  more,
  mustBeAt,
  mustMatch,
  notFound,
  num,
  one,
  Outbox,
  type Person,
  type Row,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import type { PackTransferDto } from './parcels.dto.js';
import { addressOf } from './parcels.queries.js';
import { mustBeAtEither, type TransferRow, transferOf } from './transfer-rows.js';

type ParcelRow = Row<'transfer_parcel'>;
/** A parcel of stock has no customer who waits: every service is fast enough. */
const ANY_SPEED = 'standard';

/** The parcels in which goods go from one site to another, and the labels that carriers sell for them. */
@Injectable()
export class TransferParcels implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly carriers: CarriersQueries,
    private readonly desk: CarrierDesk,
    private readonly outbox: Outbox,
    private readonly activity: ActivityService,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('transfer.label', ({ payload }) => this.fetchLabel(String(payload['parcel'])));
    this.outbox.handle('transfer.void', ({ payload }) => this.giveBack(String(payload['parcel'])));
    this.outbox.handle('transfer.manifest', ({ payload }) =>
      this.tellTaken(String(payload['transfer']), num(payload['carrier'] as number)),
    );
  }

  /** Services and prices of the carriers that fetch at the site which sends, for a parcel to the other. */
  async rates(person: Person, code: string, weightG: number, box: string | null): Promise<RatesDto> {
    if (!Number.isInteger(weightG) || weightG < 1) throw badForm({ weightG: 'Weigh the parcel first: grams, a whole number' });
    const t = await find(this.source, 'transfer', { code });
    if (!t) throw notFound(`Transfer ${code.slice(0, 20)}`);
    mustBeAt(person, t.from_site_id);
    return this.desk.ratesAt(t.from_site_id, await this.shipment(t, `${t.code}-1`, weightG, box), ANY_SPEED);
  }

  /** One more parcel of it is packed; a label is asked for where it goes by a carrier. */
  pack(act: Act, code: string, version: number, asked: PackTransferDto): Promise<{ code: string }> {
    return this.commands.run(act, 'transfer.pack', { code, version, ...asked }, async (tx) => {
      const t = await this.open(tx, act, code, version);
      if (asked.box !== null && !(await find(tx, 'carton', { code: asked.box }))) throw badForm({ box: `There is no box ${asked.box}` });
      const carrier = asked.service && (await this.carrierAt(t, asked.service.carrier));
      if (carrier && !(await addressOf(tx, t.to_site_id)))
        throw badForm({ service: 'Nobody has said where that site is. Set its address in Setup first, or send it without a label' });
      const last = await one<{ n: number | null }>(tx, 'SELECT MAX(number) AS n FROM transfer_parcel WHERE transfer_id = ?', [t.id]);
      const number = (last?.n ?? 0) + 1;
      const parcel = `${t.code}-${number}`;
      await insert(tx, 'transfer_parcel', {
        transfer_id: t.id,
        number,
        code: parcel,
        state: carrier ? 'label-asked' : 'packed',
        weight_g: asked.weightG,
        carton: asked.box,
        carrier_id: carrier?.id ?? null,
        service: carrier ? (asked.service?.code ?? null) : null,
      });
      if (carrier)
        await this.outbox.send(
          tx,
          `carrier:${carrier.code}/${parcel}`,
          'transfer.label',
          { parcel },
          { siteId: t.from_site_id, document: t.code },
        );
      return { code: parcel };
    });
  }

  /** A parcel is unpacked again before it leaves: what its carrier sold for it is given back. */
  unpack(act: Act, code: string, parcel: string, version: number): Promise<{ code: string }> {
    return this.commands.run(act, 'transfer.unpack', { code, parcel, version }, async (tx) => {
      const t = await this.open(tx, act, code, version);
      const row = await find(tx, 'transfer_parcel', { code: parcel, transfer_id: t.id }, 'lock');
      if (!row || row.state === 'removed') throw notFound(`Parcel ${parcel.slice(0, 26)}`);
      await this.remove(tx, t, [row]);
      return { code };
    });
  }

  /** The transfer is called off: none of its parcels goes. It is held. */
  async drop(tx: Tx, t: Pick<TransferRow, 'id' | 'code' | 'from_site_id'>): Promise<void> {
    const all = await rows<ParcelRow>(
      tx,
      `SELECT * FROM transfer_parcel WHERE transfer_id = ? AND state <> 'removed' ORDER BY id FOR UPDATE`,
      [t.id],
    );
    await this.remove(tx, t, all);
  }

  /** The transfer has left: each carrier's system is told what its driver has taken. It is held. */
  async left(tx: Tx, t: Pick<TransferRow, 'id' | 'code' | 'from_site_id'>): Promise<void> {
    const carriers = await rows<{ id: number; code: string }>(
      tx,
      `SELECT DISTINCT c.id, c.code FROM transfer_parcel p JOIN carrier c ON c.id = p.carrier_id WHERE p.transfer_id = ? AND p.state = 'labelled' ORDER BY c.id`,
      [t.id],
    );
    for (const c of carriers)
      await this.outbox.send(
        tx,
        `carrier:${c.code}/${t.code}`,
        'transfer.manifest',
        { transfer: t.code, carrier: c.id },
        { siteId: t.from_site_id, document: t.code },
      );
  }

  /** The label of a parcel, for whoever works at either end. */
  async label(person: Person, code: string, parcel: string): Promise<Buffer> {
    const { row } = await this.labelled(this.source, code, parcel, (t) => mustBeAtEither(person, t));
    return row.label_pdf ?? Buffer.alloc(0);
  }

  /** Sends its label to the printer once more, or sooner where it waits for it. */
  print(act: Act, code: string, parcel: string): Promise<void> {
    return this.commands.run(act, 'transfer.print', { code, parcel }, async (tx) => {
      const { t } = await this.labelled(tx, code, parcel, (found) => mustBeAt(act.person, found.from_site_id));
      const waits = await one(
        tx,
        `SELECT id FROM outbox WHERE kind = 'print.label' AND document = ? AND state <> 'done' AND JSON_VALUE(payload, '$.parcel') = ? LIMIT 1`,
        [t.code, parcel],
      );
      if (!waits) await this.toPrinter(tx, t, parcel);
      await this.outbox.hurry(tx, 'print.label', t.code);
    });
  }

  private async labelled(
    tx: Pick<Tx, 'query'>,
    code: string,
    parcel: string,
    mayBe: (t: TransferRow) => void,
  ): Promise<{ t: TransferRow; row: ParcelRow }> {
    const t = await find(tx, 'transfer', { code });
    if (!t) throw notFound(`Transfer ${code.slice(0, 20)}`);
    mayBe(t);
    const row = await find(tx, 'transfer_parcel', { transfer_id: t.id, code: parcel });
    if (!row || row.state === 'removed') throw notFound(`Parcel ${parcel.slice(0, 26)}`);
    if (!row.label_pdf) throw badState(`${row.code} has no label`);
    return { t, row };
  }

  private async open(tx: Tx, act: Act, code: string, version: number): Promise<TransferRow> {
    const t = await transferOf(tx, code);
    mustBeAt(act.person, t.from_site_id);
    mustMatch(t.version, version);
    if (t.state !== 'requested' && t.state !== 'gathering')
      throw badState(`${t.code} has left, or was called off: its parcels stay as they are`);
    await update(tx, 'transfer', { id: t.id }, { version: more(1) });
    return t;
  }

  private async carrierAt(t: TransferRow, code: string): Promise<CarrierRow> {
    const carrier = (await this.carriers.atSite(t.from_site_id)).find((c) => c.code === code);
    if (!carrier) throw badForm({ service: `No carrier ${code.slice(0, 20)} fetches at that site` });
    return carrier;
  }

  private async remove(tx: Tx, t: Pick<TransferRow, 'code' | 'from_site_id'>, parcels: readonly ParcelRow[]): Promise<void> {
    for (const { id, code, state } of parcels) {
      await update(tx, 'transfer_parcel', { id }, { state: 'removed' });
      if (state !== 'packed')
        await this.outbox.send(tx, `carrier-back:${code}`, 'transfer.void', { parcel: code }, { siteId: t.from_site_id, document: t.code });
    }
  }

  private async shipment(t: Pick<TransferRow, 'to_site_id'>, parcel: string, weightG: number, box: string | null): Promise<Shipment> {
    const to = await addressOf(this.source, t.to_site_id);
    if (!to) throw badState('Nobody has said where that site is. Set its address in Setup first');
    return { parcel, weightG, sizeMm: await this.carriers.sizeOf(this.source, box), to };
  }

  /** Asks the carrier for the label of a parcel, under its own code, so that it is bought once; what is wanted no longer is given back. */
  private async fetchLabel(code: string): Promise<void> {
    const parcel = await find(this.source, 'transfer_parcel', { code });
    const t = parcel && (await find(this.source, 'transfer', { id: parcel.transfer_id }));
    if (!parcel || !t || parcel.state !== 'label-asked' || parcel.carrier_id === null) return;
    const carrier = await this.carriers.byId(parcel.carrier_id);
    if (!carrier) return;
    const shipment = await this.shipment(t, code, parcel.weight_g, parcel.carton);
    const label = await this.desk.label(carrier, { ...shipment, service: parcel.service ?? '', reference: code });
    await inTransaction(this.source, async (tx) => {
      const now = await find(tx, 'transfer_parcel', { id: parcel.id }, 'lock');
      const isWanted = now?.state === 'label-asked';
      await update(
        tx,
        'transfer_parcel',
        { id: parcel.id },
        {
          tracking: label.tracking,
          price: label.price,
          ...(isWanted ? { state: 'labelled', label_pdf: label.pdf, booking: label.booking } : {}),
        },
      );
      if (!isWanted) {
        await this.outbox.send(tx, `carrier-back:${code}`, 'transfer.void', { parcel: code }, { siteId: t.from_site_id, document: t.code });
        return;
      }
      await this.toPrinter(tx, t, code);
      await this.activity.record(tx, null, {
        kind: 'label',
        glyph: 'print',
        title: `Label for ${code}`,
        detail: `${carrier.name}, ${label.tracking}`,
        document: t.code,
        siteId: t.from_site_id,
      });
    });
  }

  private toPrinter(tx: Tx, t: Pick<TransferRow, 'code' | 'from_site_id'>, parcel: string): Promise<void> {
    return this.outbox.send(tx, `printer:site-${t.from_site_id}`, 'print.label', { parcel }, { siteId: t.from_site_id, document: t.code });
  }

  private async giveBack(code: string): Promise<void> {
    const parcel = await find(this.source, 'transfer_parcel', { code });
    const carrier = parcel?.state === 'removed' && parcel.carrier_id !== null ? await this.carriers.byId(parcel.carrier_id) : null;
    if (parcel && carrier) await this.desk.voidLabel(carrier, { reference: code, tracking: parcel.tracking });
  }

  private async tellTaken(code: string, carrierId: number): Promise<void> {
    const t = await find(this.source, 'transfer', { code });
    const carrier = await this.carriers.byId(carrierId);
    if (!t?.sent_at || !carrier) return;
    const parcels = await rows<{ parcel: string; tracking: string; weightG: number }>(
      this.source,
      `SELECT code AS parcel, tracking, weight_g AS weightG FROM transfer_parcel WHERE transfer_id = ? AND carrier_id = ? AND state = 'labelled' ORDER BY number`,
      [t.id, carrierId],
    );
    await this.desk.manifest(carrier, { reference: t.code, at: t.sent_at, driver: null, parcels });
  }
}
