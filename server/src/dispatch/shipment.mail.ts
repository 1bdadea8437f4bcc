import { Injectable, type OnModuleInit } from '@nestjs/common';
import { CompanyLetters } from '../letters/index.js';
import { inWords, ParcelPapers } from '../packing/index.js';
import { Outbox } from '../platform/index.js';

/** Tells the customer that a parcel is on its way, what is in it and what follows, with its packing list. */
@Injectable()
export class ShipmentMail implements OnModuleInit {
  constructor(
    private readonly outbox: Outbox,
    private readonly letters: CompanyLetters,
    private readonly papers: ParcelPapers,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.shipment', async ({ payload, id }) => {
      const parcel = await this.papers.read(String(payload['parcel']));
      const follows = parcel.follows.length > 0;
      await this.letters.send(
        'shipment',
        {
          customer: parcel.customer,
          order: parcel.channelRef,
          parcel: parcel.code,
          which: parcel.parcels > 1 ? `Parcel ${parcel.number} of ${parcel.parcels}` : 'Your parcel',
          carrier: String(payload['carrier']),
          tracking: String(payload['tracking']),
          contents: inWords(parcel.goods),
          follows: inWords([...parcel.follows, ...parcel.leftOut]),
          complete: follows ? '' : 'With it your order is complete.',
        },
        {
          id: `shipment-${id}`,
          to: String(payload['to']),
          attachments: [{ filename: `${parcel.code}.pdf`, content: await this.papers.pdf(parcel) }],
        },
      );
    });
  }
}
