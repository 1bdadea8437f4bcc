import { Carriers } from './carriers.js';
import { Lindenmart } from './lindenmart.js';
import { mailServer, printer, scale } from './post.js';
import { outsideServer } from './server.js';
import { Shop } from './shop.js';
import { Suppliers } from './suppliers.js';
import { Travels } from './travels.js';
import { Trade } from './trade.js';
import { WorldState } from './state.js';

const port = (name: string, fallback: number) => Number(process.env[name] ?? fallback);
const state = new WorldState(process.env['OUTSIDE_DATA'] ?? '.data/outside');
const shop = new Shop(
  state,
  process.env['VECTRUM_URL'] ?? 'http://127.0.0.1:4600',
  process.env['OUTSIDE_SHOP_SECRET'] ?? 'shop-and-stores-share-this',
);
const carrierKey = process.env['OUTSIDE_CARRIER_KEY'] ?? 'carrier-knows-this-house';
const carriers = new Carriers(state, carrierKey);
const travels = new Travels(state, process.env['VECTRUM_URL'] ?? 'http://127.0.0.1:4600', carrierKey);

const suppliers = new Suppliers(
  state,
  process.env['VECTRUM_URL'] ?? 'http://127.0.0.1:4600',
  process.env['OUTSIDE_SUPPLIER_KEY'] ?? 'suppliers-and-stores-share-this',
);

const market = new Lindenmart(state, process.env['OUTSIDE_MARKET_KEY'] ?? 'seller-of-the-market');
const trade = new Trade(
  state,
  process.env['VECTRUM_URL'] ?? 'http://127.0.0.1:4600',
  process.env['OUTSIDE_TRADE_SECRET'] ?? 'trade-and-stores-share-this',
);

const http = outsideServer({ state, shop, market, trade, carriers, travels, suppliers });
const mail = mailServer(state, suppliers);
const paper = printer(state);
const weighs = scale(state);
const listening = [
  new Promise<void>((done) => http.listen(port('OUTSIDE_PORT', 4700), '127.0.0.1', done)),
  new Promise<void>((done) => mail.listen(port('OUTSIDE_SMTP_PORT', 4725), '127.0.0.1', done)),
  new Promise<void>((done) => paper.listen(port('OUTSIDE_PRINTER_PORT', 4791), '127.0.0.1', done)),
  new Promise<void>((done) => weighs.listen(port('OUTSIDE_SCALE_PORT', 4792), '127.0.0.1', done)),
];

function stop(): void {
  state.write();
  process.exit(0);
}
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
process.on('disconnect', stop);

await Promise.all(listening);
process.send?.({ ready: true });
