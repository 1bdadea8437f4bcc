import fc from 'fast-check';
import { Connectors } from '../src/connectors/connectors.js';
import { Lindenmart } from '../src/connectors/lindenmart/lindenmart.js';
import { Trade } from '../src/connectors/trade/trade.js';
import { WebShop } from '../src/connectors/web-shop/web-shop.js';
import { Problem } from '../src/platform/index.js';
import { linden, shopOrder, trade } from './channel-messages.js';

/** Reading asks nothing of the house: what a message says is known from the message alone. */
const noHouse = {} as never;

it('reads a thousand malformed messages of each kind, and throws nothing but what is against them', async () => {
  const connectors = new Connectors(new WebShop(), new Lindenmart(), new Trade(noHouse, noHouse, noHouse));
  const good = [JSON.stringify(shopOrder()), JSON.stringify(linden()), trade('PO-1', [['Sellers', 'JAR-454-RD', 1]])];
  const broken = fc.oneof(
    fc.string(),
    fc.json(),
    fc
      .record({ of: fc.constantFrom(...good), at: fc.nat(900), cut: fc.nat(40), put: fc.string({ maxLength: 6 }) })
      .map(({ of, at, cut, put }) => of.slice(0, at) + put + of.slice(at + cut)),
  );
  for (const kind of ['web-shop', 'marketplace', 'trade'])
    await fc.assert(
      fc.asyncProperty(broken, async (raw) => {
        try {
          expect(['order', 'cancel']).toContain((await connectors.read({ kind }, raw)).kind);
        } catch (thrown) {
          expect(thrown).toBeInstanceOf(Problem);
          expect((thrown as Problem).status).toBe(400);
        }
      }),
      { numRuns: 1000 },
    );
});
