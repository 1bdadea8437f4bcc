import { Injectable, type OnModuleInit } from '@nestjs/common';
import { inWords, ParcelPapers } from '../packing/index.js';
import { Mailer, Outbox } from '../platform/index.js';

/** Tells the customer that a parcel is on its way, what is in it and what follows, with its packing list. */
@Injectable()
export class ShipmentMail implements OnModuleInit {
  constructor(
    private readonly outbox: Outbox,
    private readonly mailer: Mailer,
    private readonly papers: ParcelPapers,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.shipment', async ({ payload, id }) => {
      const parcel = await this.papers.read(String(payload['parcel']));
      const which = parcel.parcels > 1 ? `Parcel ${parcel.number} of ${parcel.parcels}` : 'Your parcel';
      await this.mailer.send({
        id: `shipment-${id}`,
        to: String(payload['to']),
        subject: `Your order ${parcel.channelRef} is on its way`,
        text: [
          `Dear ${parcel.customer},`,
          `${which} (${parcel.code}) left us with ${String(payload['carrier'])}.\nTracking number: ${String(payload['tracking'])}`,
          `In it:\n${inWords(parcel.goods)}`,
          parcel.follows.length > 0 ? `Not in it:\n${inWords(parcel.follows)}` : 'With it your order is complete.',
          'The packing list is attached.\n',
        ].join('\n\n'),
        attachments: [{ filename: `${parcel.code}.pdf`, content: await this.papers.pdf(parcel) }],
      });
    });
  }
}
