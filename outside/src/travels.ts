import { createHmac } from 'node:crypto';
import { carrierOf, codeOf } from './carrier-list.js';
import { VOID } from './carriers.js';
import { json, Refused } from './http.js';
import { behave, type KeptParcel, type WorldState } from './state.js';

/** What happens to a parcel one after the other, and the word that the stores are told. */
const STEPS = [
  ['collected', 'collected'],
  ['at the depot', 'on-the-way'],
  ['out for delivery', 'out-for-delivery'],
  ['delivered', 'delivered'],
] as const;
const TROUBLES: Readonly<Record<string, string>> = {
  delayed: 'No driver for this round',
  damaged: 'Crushed at the depot',
  returned: 'Nobody at this address',
  lost: 'Not found at the depot',
};
const RETRY_MS = 4_000;
const MOST_EVENTS = 100;

/** Parcels on their way: the stores are told by signed message, and may ask for what they missed. */
export class Travels {
  constructor(
    private readonly state: WorldState,
    private readonly houseUrl: string,
    private readonly key: string,
  ) {}

  /** The next thing happens to a parcel. */
  moveOn(tracking: string): void {
    const parcel = this.parcel(tracking);
    const done = parcel.steps.map((s) => s.what);
    const next = STEPS.find(([what]) => !done.includes(what));
    if (next && done.at(-1) !== VOID) this.happens(parcel, next[0], next[1], '');
  }

  /** Something goes wrong with a parcel. */
  goWrong(tracking: string, how: string): void {
    const note = Object.hasOwn(TROUBLES, how) ? TROUBLES[how] : undefined;
    if (note === undefined) throw new Refused(400, `One of ${Object.keys(TROUBLES).join(', ')}`);
    this.happens(this.parcel(tracking), how, how, note);
  }

  /** What a driver has taken: each of its parcels is collected, once. */
  async manifest(code: string, body: string): Promise<object> {
    await behave(this.state.world.manners.carriers);
    const carrier = carrierOf(code);
    const { reference, parcels } = json(body);
    if (typeof reference !== 'string' || !Array.isArray(parcels)) throw new Refused(400, 'Say reference and parcels');
    for (const { tracking } of parcels as { tracking: string }[]) {
      const kept = this.state.world.parcels.find((p) => p.tracking === tracking && p.carrier === carrier.name);
      if (kept && kept.steps.length === 1) this.happens(kept, 'collected', 'collected', `list ${reference}`);
    }
    return {};
  }

  /** What was said after a cursor, of one carrier. */
  async since(code: string, cursor: string): Promise<object> {
    await behave(this.state.world.manners.carriers);
    const carrier = carrierOf(code);
    const after = Number(cursor) || 0;
    const fresh = this.state.world.events.filter((e) => e.number > after && e.carrier === carrier.name).slice(0, MOST_EVENTS);
    return {
      events: fresh.map(({ tracking, what, at, note }) => ({ tracking, what, at, note })),
      seen: String(fresh.at(-1)?.number ?? after),
    };
  }

  private parcel(tracking: string): KeptParcel {
    const parcel = this.state.world.parcels.find((p) => p.tracking === tracking);
    if (!parcel) throw new Refused(404, 'There is no such parcel');
    return parcel;
  }

  private happens(parcel: KeptParcel, step: string, what: string, note: string): void {
    const at = new Date().toISOString();
    parcel.steps.push({ at, what: step });
    const { events } = this.state.world;
    events.push({ number: (events.at(-1)?.number ?? 0) + 1, carrier: parcel.carrier, tracking: parcel.tracking, what, at, note });
    this.state.changed();
    void this.tell(parcel.carrier, { tracking: parcel.tracking, what, at, note });
  }

  private async tell(carrier: string, event: object, left = 2): Promise<void> {
    const manner = this.state.world.manners.carriers;
    const body = JSON.stringify({ events: [event] });
    try {
      await behave(manner);
      for (let times = manner === 'twice' ? 2 : 1; times > 0; times--)
        await fetch(`${this.houseUrl}/api/carriers/${codeOf(carrier).toUpperCase()}/events`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', 'x-signature': createHmac('sha256', this.key).update(body).digest('hex') },
          body,
          signal: AbortSignal.timeout(5_000),
        });
    } catch {
      // Who was not there asks for it later.
      if (left > 0) setTimeout(() => void this.tell(carrier, event, left - 1), RETRY_MS).unref();
    }
  }
}
