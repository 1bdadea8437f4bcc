import { moneyText, micro } from '@vectrum/core/money';
import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CompanyLetters } from '../letters/index.js';
import { Outbox, type Person, rows } from '../platform/index.js';
import type { CustomerReturnDto } from './customer-returns.dto.js';
import { CustomerReturnQueries } from './customer-returns.queries.js';
import { CustomerReturnPapers } from './return-papers.js';

/** Tells customers how to send goods back, and what they get for what came. */
@Injectable()
export class CustomerReturnMail implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly letters: CompanyLetters,
    private readonly queries: CustomerReturnQueries,
    private readonly papers: CustomerReturnPapers,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.return-paper', async ({ payload, id }) => {
      const house = await this.house();
      const of = await this.queries.sheet(house, String(payload['code']));
      const goods = of.goodsBack.filter((l) => l.announced !== '').map((l) => `  ${l.announced} of ${l.name}`);
      await this.letters.send(
        'return-paper',
        { customer: of.customer, order: of.order ?? '', return: of.code, goods: goods.join('\n') },
        {
          id: `return-paper-${id}`,
          to: String(payload['to']),
          attachments: [{ filename: `${of.code}.pdf`, content: await this.papers.slip(house, of.code) }],
        },
      );
    });
    this.outbox.handle('mail.return-settled', async ({ payload, id }) => {
      const of = await this.queries.sheet(await this.house(), String(payload['code']));
      const goods = of.goodsBack.flatMap((l) => l.pieces.filter((p) => !p.undone).map((p) => `  ${p.words} of ${l.name}`));
      await this.letters.send(
        'return-settled',
        {
          customer: of.customer,
          order: of.order ?? '',
          return: of.code,
          goods: goods.join('\n'),
          what: givenWords(of),
          why: of.settledWhy,
        },
        { id: `return-settled-${id}`, to: String(payload['to']), attachments: [] },
      );
    });
  }

  private async house(): Promise<Person> {
    const sites = await rows<{ id: number }>(this.source, 'SELECT id FROM site');
    return { id: 0, name: '', rights: new Set<string>(), siteIds: sites.map((s) => s.id), seesCosts: true, isOwner: false };
  }
}

/** What the customer gets, in a sentence. */
function givenWords(of: CustomerReturnDto): string {
  switch (of.settledAs) {
    case 'refund':
      return `We pay back ${moneyText(micro(of.amount ?? '0'), of.currency)}.`;
    case 'exchange':
      return `The same goods are on their way to you again, as order ${of.exchangeOrder ?? ''}.`;
    case 'repair':
      return `It is repaired and comes back to you: ${of.wentWith ?? ''}.`;
    default:
      return 'We can pay nothing back for it.';
  }
}
