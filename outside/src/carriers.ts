import { drawLabel } from './carrier-label.js';
import { carrierOf, costOf } from './carrier-list.js';
import { json, Refused } from './http.js';
import { behave, type KeptParcel, type WorldState } from './state.js';

/** Labels from before there were references are known by their parcel. */
const isOf = (label: KeptParcel, reference: string) => (label.reference ?? label.parcel) === reference;

export const VOID = 'given back';

/** The carriers: rates by weight band, labels as PDF, taken back while they were not collected. */
export class Carriers {
  constructor(
    private readonly state: WorldState,
    private readonly key: string,
  ) {}

  mustKnow(authorization: string | undefined): void {
    if (authorization !== `Bearer ${this.key}`) throw new Refused(401, 'This key is not known');
  }

  async rates(code: string, body: string) {
    await behave(this.state.world.manners.carriers);
    const carrier = carrierOf(code);
    const asked = json(body);
    const rates = carrier.services.flatMap((s) => {
      const cost = costOf(carrier, s, asked);
      return cost ? [{ service: s.service, name: s.name, days: s.days, ...cost }] : [];
    });
    return { rates };
  }

  /** Sells a label; the same parcel gets the same label again. */
  async label(code: string, body: string) {
    await behave(this.state.world.manners.carriers);
    const carrier = carrierOf(code);
    const asked = json(body);
    const to = asked['to'] as { name?: string; line?: string; city?: string; postcode?: string } | undefined;
    const service = carrier.services.find((s) => s.service === asked['service']);
    const price = service && costOf(carrier, service, asked)?.price;
    if (!service || !price || !to?.postcode) throw new Refused(422, 'Service, weight, size or address do not fit');
    const parcel = String(asked['parcel']);
    const reference = String(asked['reference'] ?? parcel);
    const { parcels } = this.state.world;
    let kept = parcels.find((p) => isOf(p, reference) && p.carrier === carrier.name);
    if (!kept) {
      const number = String(10_000_000 + parcels.length * 7919).slice(0, 8);
      kept = {
        parcel,
        reference,
        carrier: carrier.name,
        tracking: `${carrier.prefix}${number}GB`,
        service: service.name,
        price,
        to: `${to.name ?? ''}, ${to.postcode}`,
        steps: [{ at: new Date().toISOString(), what: 'label made' }],
        ...(carrier.books ? { booking: `BK-${number}` } : {}),
      };
      parcels.push(kept);
      this.state.changed();
    }
    const pdf = await drawLabel(carrier.name, service.name, kept, to, Number(asked['weightG']));
    return {
      tracking: kept.tracking,
      price: kept.price,
      pdf: pdf.toString('base64'),
      ...(kept.booking ? { booking: kept.booking } : {}),
    };
  }

  /** Takes a label back that was not used. One that was collected already stays as it is. */
  async takeBack(code: string, body: string): Promise<object> {
    await behave(this.state.world.manners.carriers);
    const carrier = carrierOf(code);
    const { reference } = json(body);
    const kept = this.state.world.parcels.find((p) => isOf(p, String(reference)) && p.carrier === carrier.name);
    if (!kept) throw new Refused(404, 'This label is not known');
    if (kept.steps.length > 1 && kept.steps.at(-1)?.what !== VOID) throw new Refused(409, 'This parcel was collected already');
    if (kept.steps.at(-1)?.what !== VOID) kept.steps.push({ at: new Date().toISOString(), what: VOID });
    this.state.changed();
    return {};
  }
}
