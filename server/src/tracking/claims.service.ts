import { Injectable } from '@nestjs/common';
import type { Trouble } from '@vectrum/core/tracking';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { type Act, badState, CommandLog, find, insert, mustBeAt, mustMatch, notFound, NOW, one, Outbox, pageOf, type Person, rows, type Tx, update, type Window } from '../platform/index.js'; // prettier-ignore
import type { AskDto, ClaimDto, ClaimPageDto, ClaimRowDto, DropDto, OpenClaimDto, ParcelEventDto } from './tracking.dto.js';

const FIELDS = `k.id, p.code AS parcel, o.code AS \`order\`, o.customer, c.name AS carrier, p.tracking, k.kind, k.state, k.note, k.asked, k.paid, k.opened_at AS openedAt, k.version`;
const FROM = `FROM claim k JOIN parcel p ON p.id = k.parcel_id JOIN sales_order o ON o.id = p.order_id JOIN place w ON w.id = p.place_id LEFT JOIN carrier c ON c.id = p.carrier_id`;
const OPEN: ReadonlySet<string> = new Set(['open', 'claimed']);
const money = (amount: string | null) => (amount === null ? null : Number(amount).toFixed(2));

interface Kept {
  id: number;
  state: string;
  version: number;
  parcel: string;
  order: string;
  siteId: number;
}

/** Parcels that are late, damaged, back or lost on their way, and what the carrier is asked to pay for them. One open claim a parcel. */
@Injectable()
export class ClaimsService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly outbox: Outbox,
  ) {}

  async list(siteIds: readonly number[], state: string, window: Window): Promise<ClaimPageDto> {
    const page = await pageOf<ClaimRowDto>(
      this.source,
      {
        select: FIELDS,
        from: `${FROM} WHERE w.site_id IN (?)${state === 'all' ? '' : " AND k.state IN ('open','claimed')"}`,
        params: [[0, ...siteIds]],
        order: `k.state IN ('open','claimed') DESC, k.opened_at DESC, k.id DESC`,
      },
      window,
    );
    return { ...page, rows: page.rows.map(spelt) };
  }

  async sheet(id: number, siteIds: readonly number[]): Promise<ClaimDto> {
    const found = await one<Omit<ClaimDto, 'events'> & { parcelId: number }>(
      this.source,
      `SELECT ${FIELDS}, o.email, o.phone, p.handed_over_at AS handedOverAt, p.id AS parcelId,
         COALESCE((SELECT ROUND(SUM(l.price * pl.units / GREATEST(1, l.factor)), 2) FROM parcel_line pl JOIN sales_order_line l ON l.id = pl.order_line_id WHERE pl.parcel_id = p.id), 0) AS worth
       ${FROM} WHERE k.id = ? AND w.site_id IN (?)`,
      [id, [0, ...siteIds]],
    );
    if (!found) throw notFound(`Claim ${id}`);
    const { parcelId, ...claim } = found;
    const events = await rows<ParcelEventDto>(this.source, 'SELECT what, note, at FROM parcel_event WHERE parcel_id = ? ORDER BY at, id', [
      parcelId,
    ]);
    return { ...claim, ...spelt(claim), email: claim.email, phone: claim.phone, worth: Number(claim.worth).toFixed(2), events };
  }

  /** Opened by hand: what a customer says before the carrier does. */
  open(act: Act, input: OpenClaimDto): Promise<{ id: number }> {
    return this.commands.run(act, 'claim.open', input, async (tx) => {
      const code = input.parcel.trim().toUpperCase();
      const parcel = await one<{ id: number; code: string; order: string; siteId: number; state: string }>(
        tx,
        'SELECT p.id, p.code, p.state, (SELECT o.code FROM sales_order o WHERE o.id = p.order_id) AS `order`, (SELECT w.site_id FROM place w WHERE w.id = p.place_id) AS siteId FROM parcel p WHERE p.code = ? FOR UPDATE',
        [code],
      );
      if (!parcel) throw notFound(`Parcel ${code}`);
      mustBeAt(act.person, parcel.siteId);
      if (parcel.state !== 'gone') throw badState(`${code} has not left yet. What is wrong with it is mended here`);
      const known = await find(tx, 'claim', { open_parcel: parcel.id });
      if (known) throw badState(`${code} has an open claim already`);
      const id = await insert(tx, 'claim', { parcel_id: parcel.id, kind: input.kind, note: input.note.trim() });
      await this.say(tx, act, parcel, `${code} is ${input.kind}`, input.note.trim());
      return { id };
    });
  }

  /** The carrier is asked for an amount. */
  ask(act: Act, id: number, version: number, { amount, note }: AskDto): Promise<void> {
    return this.change(act, 'claim.ask', id, version, { amount, note }, (claim) => {
      if (claim.state !== 'open') throw badState('It was claimed already');
      return {
        change: { state: 'claimed', asked: amount },
        title: `Claimed for ${claim.parcel}`,
        detail: `${amount}${note ? `: ${note}` : ''}`,
      };
    });
  }

  /** The carrier has paid, all or less. */
  settle(act: Act, id: number, version: number, { amount, note }: AskDto): Promise<void> {
    return this.change(act, 'claim.settle', id, version, { amount, note }, (claim) => ({
      change: { state: 'settled', paid: amount },
      title: `Claim for ${claim.parcel} settled`,
      detail: `${amount} paid${note ? `: ${note}` : ''}`,
    }));
  }

  /** The customer is told what the carrier says, and what the order desk adds. Returns the address. */
  tell(act: Act, id: number, note: string): Promise<{ to: string }> {
    return this.commands.run(act, 'claim.tell', { id, note }, async (tx) => {
      const claim = await one<{ parcel: string; order: string; siteId: number; email: string }>(
        tx,
        'SELECT p.code AS parcel, o.code AS `order`, w.site_id AS siteId, o.email FROM claim k JOIN parcel p ON p.id = k.parcel_id JOIN sales_order o ON o.id = p.order_id JOIN place w ON w.id = p.place_id WHERE k.id = ?',
        [id],
      );
      if (!claim) throw notFound(`Claim ${id}`);
      mustBeAt(act.person, claim.siteId);
      if (!claim.email) throw badState(`${claim.order} has no mail address. Ring them`);
      await this.outbox.send(
        tx,
        `mail:${claim.email}`,
        'mail.parcel-trouble',
        { claim: id, note: note.trim(), to: claim.email },
        { siteId: claim.siteId, document: claim.order },
      );
      await this.say(tx, act, { ...claim, code: claim.parcel }, `The customer is told about ${claim.parcel}`, note.trim());
      return { to: claim.email };
    });
  }

  /** Nothing is claimed, or no longer, and why. */
  drop(act: Act, id: number, version: number, { note }: DropDto): Promise<void> {
    return this.change(act, 'claim.drop', id, version, { note }, (claim) => ({
      change: { state: 'dropped' },
      title: `Nothing is claimed for ${claim.parcel}`,
      detail: note,
    }));
  }

  /** What a carrier's word means for the claim of a parcel: opened by trouble, and over by itself when it arrives before anything was claimed. */
  async follow(
    tx: Tx,
    parcel: { id: number; code: string; order: string; siteId: number },
    trouble: Trouble | null,
    note: string,
  ): Promise<void> {
    const open = await find(tx, 'claim', { open_parcel: parcel.id }, 'lock');
    if (trouble === null) {
      if (open?.state !== 'open') return;
      await update(
        tx,
        'claim',
        { id: open.id },
        { state: 'dropped', note: 'It went on after all', changed_at: NOW, version: open.version + 1 },
      );
      return this.say(tx, null, parcel, `${parcel.code} is on its way again`, '');
    }
    if (open?.kind === trouble) return;
    if (open) await update(tx, 'claim', { id: open.id }, { kind: trouble, changed_at: NOW, version: open.version + 1 });
    else await insert(tx, 'claim', { parcel_id: parcel.id, kind: trouble, note });
    await this.say(tx, null, parcel, `${parcel.code} is ${trouble}`, note);
  }

  private change(
    act: Act,
    command: string,
    id: number,
    version: number,
    input: { note: string; amount?: string },
    to: (claim: Kept) => { change: { state: string; asked?: string; paid?: string }; title: string; detail: string },
  ): Promise<void> {
    return this.commands.run(act, command, { id, version, ...input }, async (tx) => {
      const claim = await one<Kept>(
        tx,
        `SELECT k.id, k.state, k.version, (SELECT p.code FROM parcel p WHERE p.id = k.parcel_id) AS parcel,
           (SELECT o.code FROM parcel p JOIN sales_order o ON o.id = p.order_id WHERE p.id = k.parcel_id) AS \`order\`,
           (SELECT w.site_id FROM parcel p JOIN place w ON w.id = p.place_id WHERE p.id = k.parcel_id) AS siteId
         FROM claim k WHERE k.id = ? FOR UPDATE`,
        [id],
      );
      if (!claim) throw notFound(`Claim ${id}`);
      mustBeAt(act.person, claim.siteId);
      mustMatch(claim.version, version);
      if (!OPEN.has(claim.state)) throw badState('This claim is closed');
      const { change, title, detail } = to(claim);
      await update(
        tx,
        'claim',
        { id },
        { ...change, ...(input.note.trim() ? { note: input.note.trim() } : {}), changed_at: NOW, version: version + 1 },
      );
      await this.say(tx, act, { code: claim.parcel, order: claim.order, siteId: claim.siteId }, title, detail);
    });
  }

  private async say(
    tx: Tx,
    act: Act | null,
    parcel: { code: string; order: string; siteId: number },
    title: string,
    detail: string,
  ): Promise<void> {
    await this.activity.record(tx, act, {
      kind: 'claim',
      glyph: act ? 'half' : 'blocked',
      title,
      detail,
      document: parcel.order,
      siteId: parcel.siteId,
    });
  }

  /** Whether somebody may see a parcel's journey: what was said of it so far. */
  async events(person: Person, code: string): Promise<ParcelEventDto[]> {
    const parcel = await one<{ id: number; siteId: number }>(
      this.source,
      'SELECT p.id, w.site_id AS siteId FROM parcel p JOIN place w ON w.id = p.place_id WHERE p.code = ?',
      [code],
    );
    if (!parcel) throw notFound(`Parcel ${code}`);
    mustBeAt(person, parcel.siteId);
    return rows(this.source, 'SELECT what, note, at FROM parcel_event WHERE parcel_id = ? ORDER BY at, id', [parcel.id]);
  }
}

const spelt = <T extends ClaimRowDto>(claim: T): T => ({ ...claim, asked: money(claim.asked), paid: money(claim.paid) });
