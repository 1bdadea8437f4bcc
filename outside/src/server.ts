import { createReadStream, existsSync } from 'node:fs';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { join } from 'node:path';
import { CATALOGUE } from './catalogue.js';
import { type Carriers } from './carriers.js';
import { CONSOLE_PAGE, CONSOLE_SCRIPT } from './console.js';
import { bodyOf, json, Refused, send } from './http.js';
import type { Deviation } from './supplier-papers.js';
import type { Suppliers } from './suppliers.js';
import { type Lindenmart, MarketBusy } from './lindenmart.js';
import type { Basket, Shop } from './shop.js';
import type { Manner, Part, WorldState } from './state.js';
import type { Trade } from './trade.js';
import type { Travels } from './travels.js';

const MANNERS = new Set(['well', 'slow', 'failing', 'twice']);

/** Longer than whoever calls keeps an idle connection, so that none is closed as it is used again. */
const KEEP_ALIVE_MS = 75_000;

/** One HTTP server for the shop, the carriers, the suppliers' desks and the console. */
export function outsideServer(world: World): Server {
  const server = createServer((request, response) => {
    route(world, request, response).catch((thrown: unknown) => {
      const status = thrown instanceof Refused ? thrown.status : 503;
      if (thrown instanceof MarketBusy) response.setHeader('retry-after', thrown.retryAfter);
      send(response, status, { message: thrown instanceof Error ? thrown.message : 'out of order' });
    });
  });
  server.keepAliveTimeout = KEEP_ALIVE_MS;
  server.headersTimeout = KEEP_ALIVE_MS + 5_000;
  return server;
}

export interface World {
  state: WorldState;
  shop: Shop;
  market: Lindenmart;
  trade: Trade;
  carriers: Carriers;
  travels: Travels;
  suppliers: Suppliers;
}

async function route(world: World, request: IncomingMessage, response: ServerResponse): Promise<void> {
  const { state, shop, market, trade, carriers, travels } = world;
  const url = new URL(request.url ?? '/', 'http://outside');
  const path = url.pathname.split('/').slice(1).map(decodeURIComponent);
  const body = request.method === 'GET' ? '' : await bodyOf(request);
  const signature = request.headers['x-signature'];
  switch (`${request.method} ${path[0]}`) {
    case 'GET ':
      response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(CONSOLE_PAGE);
      return;
    case 'GET console.js':
      response.writeHead(200, { 'content-type': 'text/javascript' }).end(CONSOLE_SCRIPT);
      return;
    case 'GET shop':
      shop.mustBeSigned(`/${path[1]}${url.search}`, signature as string | undefined);
      if (path[1] === 'goods') return send(response, 200, shop.goods());
      if (path[1] === 'stock') return send(response, 200, shop.stock());
      return send(response, 200, await shop.since(url.searchParams.get('since') ?? ''));
    case 'PUT shop':
      shop.mustBeSigned(body, signature as string | undefined);
      if (path[1] === 'stock') await shop.setStock(path[2] ?? '', body);
      else if (path[3] === 'cancellation') await shop.cancelledByStores(path[2] ?? '');
      else if (path[3] === 'returns') await shop.settleReturn(path[2] ?? '', path[4] ?? '', body);
      else await shop.addShipment(path[2] ?? '', path[4] ?? '', body);
      return send(response, 200, {});
    case 'GET lindenmart':
      await market.mustBear(request.headers.authorization);
      return send(response, 200, path[1] === 'offers' ? market.offers() : market.after(url.searchParams.get('after') ?? ''));
    case 'POST lindenmart':
      await market.mustBear(request.headers.authorization);
      return send(response, 200, market.hear(path.slice(1), body));
    case 'POST trade':
      trade.mustBeSigned(body, signature as string | undefined);
      if (path[1] === 'despatch-advices') await trade.hearParcel(body);
      else if (path[1] === 'invoices') await trade.hearBill(body);
      else await trade.hear(body);
      return send(response, 200, {});
    case 'GET carriers':
      carriers.mustKnow(request.headers.authorization);
      if (path[2] !== 'events') throw new Refused(404, 'There is nothing here');
      return send(response, 200, await travels.since(path[1] ?? '', url.searchParams.get('since') ?? ''));
    case 'POST carriers':
      carriers.mustKnow(request.headers.authorization);
      return send(response, 200, await carrierAct(world, path, body));
    case 'GET console':
      return consoleRead(state, path, response);
    case 'POST console':
      return send(response, 200, await consoleAct(world, path, json(body || '{}')));
    default:
      throw new Refused(404, 'There is nothing here');
  }
}

function carrierAct({ carriers, travels }: World, [, code = '', what]: string[], body: string): Promise<object> {
  if (what === 'rates') return carriers.rates(code, body);
  if (what === 'manifests') return travels.manifest(code, body);
  return what === 'voids' ? carriers.takeBack(code, body) : carriers.label(code, body);
}

function consoleRead(state: WorldState, path: string[], response: ServerResponse): void {
  if (path[1] === 'state') return send(response, 200, { ...state.world, catalogue: CATALOGUE });
  const file = path[2] ?? '';
  if (path[1] === 'papers' && /^paper-\d+\.pdf$/.test(file) && existsSync(join(state.dir, 'papers', file))) {
    response.writeHead(200, { 'content-type': 'application/pdf' });
    createReadStream(join(state.dir, 'papers', file)).pipe(response);
    return;
  }
  throw new Refused(404, 'There is nothing here');
}

const ANSWERS = new Set<string>(['accept', 'change', 'refuse']);

async function consoleAct(
  { state, shop, market, trade, travels, suppliers }: World,
  path: string[],
  body: Record<string, unknown>,
): Promise<object> {
  if (path[1] === 'orders' && (path[3] === 'change' || path[3] === 'cancel')) return shop.changeOf(path[2] ?? '', path[3]);
  if (path[1] === 'orders' && path[3] === 'return') return shop.sendBack(path[2] ?? '', body);
  if (path[1] === 'odd') return shop.odd();
  if (path[1] === 'market') return marketAct(market, path, body);
  if (path[1] === 'trade') return tradeAct(trade, path, body);
  if (path[1] === 'orders') {
    const basket = body as unknown as Basket;
    if (!Array.isArray(basket.lines) || basket.lines.length === 0) throw new Refused(400, 'Take something first');
    return shop.buy(basket);
  }
  if (path[1] === 'manners' && MANNERS.has(String(body['manner'])) && Object.hasOwn(state.world.manners, String(body['part']))) {
    state.world.manners[body['part'] as Part] = body['manner'] as Manner;
    state.changed();
    return state.world.manners;
  }
  if (path[1] === 'scale') {
    const grams = Number(body['grams']);
    if (!Number.isInteger(grams) || grams < 0 || grams > 1_000_000) throw new Refused(400, 'Grams, a whole number');
    state.world.onScaleG = grams;
    state.changed();
    return { grams };
  }
  if (path[1] === 'purchases') {
    const [, , order = '', what = ''] = path;
    if (what === 'despatch') return suppliers.despatch(order);
    if (ANSWERS.has(what)) return suppliers.answer(order, what as Deviation);
  }
  if (path[1] === 'parcels') {
    if (path[3] === 'trouble') travels.goWrong(path[2] ?? '', String(body['what']));
    else travels.moveOn(path[2] ?? '');
    return {};
  }
  throw new Refused(404, 'There is nothing here');
}

function marketAct(market: Lindenmart, [, , number = '', what]: string[], body: Record<string, unknown>): object {
  if (what === 'change' || what === 'cancel') return market.changeOf(number, what);
  if (body['odd'] === true) {
    market.odd();
    return {};
  }
  const lines = body['lines'];
  if (!Array.isArray(lines) || lines.length === 0) throw new Refused(400, 'Take something first');
  return market.buy(lines as { offer: string; count: number }[]);
}

async function tradeAct(trade: Trade, [, , number = '', what]: string[], body: Record<string, unknown>): Promise<object> {
  if (what === 'cancel') return trade.cancel(number);
  const lines = body['lines'];
  if (!Array.isArray(lines) || lines.length === 0) throw new Refused(400, 'Take something first');
  return trade.order(
    String(body['customer'] ?? 'Thornlea Garden Centre'),
    lines as { sku: string; quantity: number }[],
    body['odd'] === true,
    ...(number ? [number] : []),
  );
}
