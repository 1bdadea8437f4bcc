import { mkdtempSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Lindenmart, MarketBusy } from '../lindenmart.js';
import { WorldState } from '../state.js';
import { Trade } from '../trade.js';

const world = () => new WorldState(mkdtempSync(join(tmpdir(), 'outside-')));

describe('the marketplace', () => {
  it('says an order again at the end once it has changed, and sells against what it believes', () => {
    const market = new Lindenmart(world(), 'key');
    market.hear(['offers', 'LM-88121', 'count'], JSON.stringify({ count: 3, version: 10 }));
    const [first, second] = [market.buy([{ offer: 'LM-88121', count: 2 }]), market.buy([{ offer: 'LM-88121', count: 1 }])];
    expect(() => market.buy([{ offer: 'LM-88121', count: 1 }])).toThrow('only 0');
    const { after } = market.after('');
    market.changeOf(first.number, 'cancel');
    expect(market.after(after).orders).toMatchObject([{ number: first.number, status: 'cancelled', edition: 1 }]);
    expect(market.after('').orders.map((o) => o.number)).toEqual([second.number, first.number]);
  });

  it('passes over an older count, and charges for what was sold and is not sent', () => {
    const state = world();
    const market = new Lindenmart(state, 'key');
    market.hear(['offers', 'LM-88121', 'count'], JSON.stringify({ count: 9, version: 20 }));
    market.hear(['offers', 'LM-88121', 'count'], JSON.stringify({ count: 1, version: 19 }));
    expect(state.world.market.offers['LM-88121']).toMatchObject({ count: 9 });
    const { number } = market.buy([{ offer: 'LM-88121', count: 1 }]);
    market.hear(['orders', number, 'refused'], JSON.stringify({ why: 'none left' }));
    market.hear(['orders', number, 'refused'], JSON.stringify({ why: 'none left' }));
    expect(state.world.market.penalties).toEqual([`${number} was sold and could not be sent`]);
  });

  it('bears no more calls in a second than it says', async () => {
    const market = new Lindenmart(world(), 'key');
    await expect(market.mustBear('Bearer other')).rejects.toThrow('not known');
    const calls = Array.from({ length: 120 }, () =>
      market.mustBear('Bearer key').then(
        () => null,
        (e: unknown) => e,
      ),
    );
    expect((await Promise.all(calls)).some((e) => e instanceof MarketBusy)).toBe(true);
  });
});

it('orders as a trade customer, signed, says it anew under the same number, and hears the answer', async () => {
  const heard: { body: string; signature: string }[] = [];
  const house = createServer((request, response) => {
    let body = '';
    request.on('data', (part) => (body += String(part)));
    request.on('end', () => {
      heard.push({ body, signature: String(request.headers['x-signature']) });
      response.writeHead(200).end('{}');
    });
  });
  await new Promise<void>((done) => house.listen(0, '127.0.0.1', done));
  const state = world();
  const trade = new Trade(state, `http://127.0.0.1:${(house.address() as AddressInfo).port}`, 'secret');
  const order = await trade.order('Thornlea', [{ sku: 'JAR-454-RD', quantity: 2 }]);
  await trade.order('Thornlea', [{ sku: 'JAR-454-RD', quantity: 3 }], false, order.number);
  await trade.cancel(order.number);
  expect(heard.map((h) => /<(Order\w*) /.exec(h.body)?.[1])).toEqual(['Order', 'Order', 'OrderCancellation']);
  expect(() => trade.mustBeSigned(heard[0]!.body, heard[0]!.signature)).not.toThrow();
  await trade.hear(
    `<OrderResponse><OrderResponseCode>AP</OrderResponseCode><OrderReference><ID>${order.number}</ID></OrderReference></OrderResponse>`,
  );
  expect(state.world.trade).toMatchObject([{ number: order.number, told: 'told', answers: [{ code: 'AP' }] }]);
  house.closeAllConnections();
  await new Promise((done) => house.close(done));
});
