import { available, type WhyTerm } from '@vectrum/core/ledger';
import { num, promisedSql, rows, sqlList, type Tx } from '../platform/index.js';
import { ON_ROAD } from './on-road.js';
import type { StockFigureDto } from './stock.dto.js';
import { ordersIn } from '@vectrum/core/orders';

const PROMISABLE = sqlList(ordersIn('promisable'));
const PROMISED = promisedSql('l');

type Source = Pick<Tx, 'query'>;
const MOST_TERMS = 12;
const sum = (term: string, units: number): WhyTerm => ({ sign: '=', term, units, documents: [] });
const signed = (i: number): WhyTerm['sign'] => (i === 0 ? '' : '+');

/** What is held at a site, by condition, with the places where it lies. */
export async function whyHeld(source: Source, itemId: number, siteId: number): Promise<WhyTerm[]> {
  const found = await rows<{ condition: string; units: string; places: string }>(
    source,
    `SELECT b.stock_condition AS \`condition\`, SUM(b.units) AS units, GROUP_CONCAT(DISTINCT p.code ORDER BY p.code SEPARATOR '\n') AS places FROM balance b JOIN place p ON p.id = b.place_id
     WHERE b.item_id = ? AND p.site_id = ? AND b.stock_condition <> 'good' AND b.units <> 0 GROUP BY b.stock_condition`,
    [itemId, siteId],
  );
  const terms = found.map((f, i): WhyTerm => ({
    sign: signed(i),
    term: f.condition.replace('-', ' '),
    units: num(f.units),
    documents: f.places.split('\n').slice(0, 6),
  }));
  return [
    ...terms,
    sum(
      'Held',
      terms.reduce((n, t) => n + t.units, 0),
    ),
  ];
}

/** The orders that hold stock at a site, soonest promise first. */
export async function whyReserved(source: Source, itemId: number, siteId: number): Promise<WhyTerm[]> {
  const found = await rows<{ code: string; customer: string; units: string }>(
    source,
    `SELECT o.code, o.customer, SUM(v.units) AS units FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id JOIN sales_order o ON o.id = l.order_id
     WHERE v.item_id = ? AND v.site_id = ? GROUP BY l.id ORDER BY o.promised_at, o.id`,
    [itemId, siteId],
  );
  const marked = await rows<{ code: string; customer: string; units: string }>(
    source,
    `SELECT e.document AS code, COALESCE(CONCAT('to ', s.name), CONCAT('to build ', i.name), '') AS customer, e.units FROM earmark e
       LEFT JOIN transfer t ON t.code = e.document LEFT JOIN site s ON s.id = t.to_site_id LEFT JOIN build b ON b.code = e.document LEFT JOIN item i ON i.id = b.item_id
     WHERE e.item_id = ? AND e.site_id = ? AND e.units > 0 ORDER BY e.id`,
    [itemId, siteId],
  );
  return listed(
    'Reserved',
    [...found, ...marked].map((f) => ({ term: f.customer, units: num(f.units), document: f.code })),
  );
}

/** The purchase orders and transfers that still bring some, soonest first. */
export async function whyIncoming(source: Source, itemId: number, siteId: number): Promise<WhyTerm[]> {
  const found = await rows<{ code: string; supplier: string; due: string | null; units: string }>(
    source,
    `SELECT o.code, s.name AS supplier, MIN(COALESCE(l.expected_on, o.expected_on)) AS due, SUM(l.open_units) AS units
     FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
     WHERE l.item_id = ? AND o.site_id = ? AND o.state IN ('placed','part-received') GROUP BY o.id HAVING units > 0 ORDER BY o.expected_on, o.id`,
    [itemId, siteId],
  );
  const onRoad = await rows<{ code: string; supplier: string; due: string | null; units: string }>(
    source,
    `SELECT t.code, CONCAT('from ', f.name) AS supplier, t.expected_on AS due, SUM(g.units - g.received_units - g.lost_units) AS units
     FROM transfer_goods g JOIN transfer t ON t.id = g.transfer_id JOIN site f ON f.id = t.from_site_id
     WHERE g.item_id = ? AND t.to_site_id = ? AND t.state IN ${ON_ROAD} GROUP BY t.id HAVING units > 0 ORDER BY t.expected_on, t.id`,
    [itemId, siteId],
  );
  return listed(
    'On order',
    [...found, ...onRoad].map((f) => ({ term: `${f.supplier}${f.due ? `, due ${f.due}` : ''}`, units: num(f.units), document: f.code })),
  );
}

/** What will be free when all that is on order has come and all that waits has been served. */
export async function whyProjected(source: Source, itemId: number, siteId: number, figures: StockFigureDto): Promise<WhyTerm[]> {
  const [incoming, waiting] = await Promise.all([
    whyIncoming(source, itemId, siteId),
    rows<{ code: string }>(
      source,
      `SELECT o.code FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE l.item_id = ? AND o.site_id = ? AND l.units > ${PROMISED} AND o.state IN ${PROMISABLE} ORDER BY o.promised_at LIMIT 6`,
      [itemId, siteId],
    ),
  ]);
  return [
    { sign: '', term: 'Available', units: available(figures), documents: [] },
    { sign: '+', term: 'On order', units: figures.incoming, documents: incoming.flatMap((t) => t.documents).slice(0, 6) },
    { sign: '−', term: 'Orders still waiting', units: figures.waiting, documents: waiting.map((w) => w.code) },
    sum('Projected', figures.projected),
  ];
}

function listed(result: string, found: readonly { term: string; units: number; document: string }[]): WhyTerm[] {
  const shown = found
    .slice(0, MOST_TERMS)
    .map((f, i): WhyTerm => ({ sign: signed(i), term: f.term, units: f.units, documents: [f.document] }));
  const rest = found.slice(MOST_TERMS);
  if (rest.length > 0) shown.push({ sign: '+', term: `${rest.length} more`, units: rest.reduce((n, f) => n + f.units, 0), documents: [] });
  return [
    ...shown,
    sum(
      result,
      found.reduce((n, f) => n + f.units, 0),
    ),
  ];
}
