/** The console page: be a customer, see what the outside world believes, make it misbehave. */
export const CONSOLE_PAGE = `<!doctype html>
<html lang="en-GB"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Outside world</title>
<style>
body{margin:0;background:#e5e2d8;color:#141e32;font:15px/22px system-ui,sans-serif}
main{max-width:1180px;margin:0 auto;padding:20px;display:grid;grid-template-columns:1fr 1fr;gap:24px}
h1{grid-column:1/-1;font-size:24px;margin:0}h2{font-size:18px;border-top:1.5px solid;padding-top:6px;margin:0 0 8px}
section{background:#fdfdfa;padding:14px 18px;min-width:0}table{border-collapse:collapse;width:100%}td,th{text-align:left;padding:4px 8px 4px 0;border-bottom:1px solid #d5d1c7;vertical-align:top}
th{font-size:12px;font-weight:500}code{font-family:ui-monospace,monospace;font-size:13px;white-space:nowrap}td button{margin:0 4px 4px 0}
button,select,input{font:inherit;padding:4px 10px;border:1.5px solid #141e32;border-radius:2px;background:#fdfdfa;color:inherit}button{font-weight:600;cursor:pointer}
input[type=number]{width:70px}pre{white-space:pre-wrap;margin:0;font:13px/18px ui-monospace,monospace}.row{display:flex;gap:10px;flex-wrap:wrap;align-items:center;margin:8px 0}
:focus-visible{outline:3px solid #141e32;outline-offset:2px}[role=status]{font-weight:640}
@media(max-width:800px){main{grid-template-columns:1fr}}
</style></head><body><main>
<h1>Outside world</h1>
<section><h2>Buy in the web shop</h2><form id="buy"><div class="row"><label>Name <input name="customer" value="Wick Hill Farm"></label><label>Postcode <input name="postcode" value="NW8 2RE" size="9"></label></div>
<div class="row"><label>Note to the packer <input name="note" size="34"></label></div><table id="shelf"></table><div class="row"><button>Place the order</button><span role="status" id="said"></span></div></form></section>
<section><h2>How they behave</h2><table id="manners"></table><form id="weigh" class="row"><label>On the scale, g <input type="number" min="0" max="1000000" name="grams" value="0"></label><button>Put it there</button></form><h2 style="margin-top:16px">Parcels the carriers hold</h2><table id="parcels"></table></section>
<section><h2>Orders in the shop</h2><table id="orders"></table></section>
<section><h2>Lindenmart</h2><div class="row"><button data-market="buy">A buyer buys</button><button data-market="odd">It sends nonsense</button></div><table id="market"></table><h2 style="margin-top:16px">Charges</h2><pre id="penalties"></pre></section>
<section><h2>Trade customers</h2><div class="row"><button data-trade="order">Order</button><button data-trade="unknown">Order unknown goods</button><button data-trade="odd">Send nonsense</button></div><table id="trade"></table></section>
<section><h2>Orders at suppliers</h2><table id="purchases"></table><p role="status" id="supplied"></p></section>
<section><h2>Mail</h2><table id="mails"></table><h2 style="margin-top:16px">Papers from the printer</h2><table id="papers"></table></section>
</main><script src="/console.js"></script></body></html>`;

export const CONSOLE_SCRIPT = `
const $ = (id) => document.getElementById(id);
const esc = (t) => String(t ?? '').replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]);
const post = (path, body) => fetch(path, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body ?? {}) }).then((r) => r.json());
const fill = (id, head, rows) => { $(id).innerHTML = '<tr>' + head.map((h) => '<th>' + h + '</th>').join('') + '</tr>' + (rows.length ? rows.map((r) => '<tr>' + r.map((c) => '<td>' + c + '</td>').join('') + '</tr>').join('') : '<tr><td colspan="9">nothing yet</td></tr>'); };
let shelfDrawn = false;
async function draw() {
  const w = await fetch('/console/state').then((r) => r.json());
  if (!shelfDrawn) { fill('shelf', ['Goods', 'Price', 'Shop believes', 'Take'], w.catalogue.map((c) => [esc(c.title), '£' + c.price, '<span data-stock="' + c.sku + '"></span>', '<input type="number" min="0" value="0" aria-label="Take ' + esc(c.title) + '" name="' + c.sku + '">'])); shelfDrawn = true; }
  for (const el of document.querySelectorAll('[data-stock]')) el.textContent = w.stock[el.dataset.stock]?.units ?? 'not told';
  fill('manners', ['Part', 'Manner'], Object.entries(w.manners).map(([p, m]) => [p, '<select data-part="' + p + '">' + ['well', 'slow', 'failing', 'twice'].map((x) => '<option' + (x === m ? ' selected' : '') + '>' + x + '</option>').join('') + '</select>']));
  fill('orders', ['Reference', 'Customer', 'Stores', 'Sent', ''], w.orders.slice(-12).reverse().map((o) => ['<code>' + esc(o.order.ref) + '</code>', esc(o.order.customer), o.cancelled ? 'cancelled ' + o.cancelled : o.told, o.shipments.map((s) => esc(s.carrier) + ' <code>' + esc(s.tracking) + '</code> ' + esc((s.lines ?? []).map((l) => l.units + ' ' + l.sku).join(', '))).concat((o.returns ?? []).map((r) => 'Back <code>' + esc(r.returnRef) + '</code> ' + esc(r.settled ? r.settled.settlement + ' ' + (r.settled.amount ?? '') : r.told))).join('<br>'), [['change', 'Change'], ['cancel', 'Cancel'], ['return', 'Send back']].map(([what, says]) => '<button data-shop="' + esc(o.order.ref) + '" data-does="' + what + '">' + says + '</button>').join(' ')]));
  fill('market', ['Number', 'Buyer', 'Taken as', 'Parcels', ''], w.market.orders.slice(-10).reverse().map((o) => ['<code>' + esc(o.order.number) + '</code>', esc(o.order.recipient?.name), esc(o.refused ? 'refused: ' + o.refused : o.order.status === 'cancelled' ? 'cancelled' : o.sellersNumber ?? 'not yet'), o.parcels.map((p) => esc(p.tracking)).join('<br>'), ['change', 'cancel'].map((what) => '<button data-mark="' + esc(o.order.number) + '" data-does="' + what + '">' + (what === 'change' ? 'Change' : 'Cancel') + '</button>').join(' ')]));
  $('penalties').textContent = w.market.penalties.join('\\n') || 'none';
  fill('trade', ['Number', 'Customer', 'Stores', 'Answered', ''], w.trade.slice(-10).reverse().map((o) => ['<code>' + esc(o.number) + '</code>', esc(o.customer), esc(o.told), o.answers.map((a) => esc(a.code + ' ' + a.note)).concat((o.parcels ?? []).map((p) => 'Parcel <code>' + esc(p.tracking || p.parcel) + '</code> ' + p.units), (o.bills ?? []).map((b) => esc(b.kind + ' ' + b.code + ' ' + b.payable))).join('<br>'), '<button data-po="' + esc(o.number) + '" data-does="change">Change</button> <button data-po="' + esc(o.number) + '" data-does="cancel">Cancel</button>']));
  fill('purchases', ['Order', 'Supplier', 'Said', ''], w.purchases.slice(-12).reverse().map((p) => ['<code>' + esc(p.order) + '</code>', esc(p.name), esc(p.said), [['accept', 'Confirm'], ['change', 'Change'], ['refuse', 'Refuse'], ['despatch', 'Send the goods']].map(([what, says]) => '<button data-order="' + esc(p.order) + '" data-what="' + what + '">' + says + '</button>').join(' ')]));
  fill('parcels', ['Parcel', 'Tracking', 'To', 'Where', ''], w.parcels.slice(-12).reverse().map((p) => ['<code>' + esc(p.parcel) + '</code>', '<code>' + esc(p.tracking) + '</code>', esc(p.to), esc(p.steps.at(-1).what), '<button data-move="' + p.tracking + '">Move on</button>' + ['delayed', 'damaged', 'returned', 'lost'].map((t) => ' <button data-wrong="' + p.tracking + '" data-how="' + t + '">' + t + '</button>').join('')]));
  fill('mails', ['To', 'Subject'], w.mails.slice(-10).reverse().map((m) => [esc(m.to), '<details><summary>' + esc(m.subject) + '</summary><pre>' + esc(m.text) + '</pre>' + esc(m.attachments.join(', ')) + '</details>']));
  fill('papers', ['When', 'Paper'], w.papers.slice(-10).reverse().map((p) => [new Date(p.at).toLocaleTimeString('en-GB'), '<a href="/console/papers/' + p.file + '">' + p.file + '</a>']));
}
document.addEventListener('change', (e) => { const part = e.target.dataset?.part; if (part) post('/console/manners', { part, manner: e.target.value }); });
document.addEventListener('click', (e) => { const { order, what } = e.target.dataset ?? {}; if (order && what) post('/console/purchases/' + order + '/' + what).then((a) => { $('supplied').textContent = (a.order ?? '') + ' ' + (a.said ?? a.message); draw(); }); });
const TRADE = { order: [{ sku: 'JAR-454-RD', quantity: 12 }, { sku: 'FRM-DN1', quantity: 10 }], unknown: [{ sku: 'THEIR-99', quantity: 2 }], odd: [{ sku: 'JAR-454-RD', quantity: 1 }] };
document.addEventListener('click', (e) => {
  const d = e.target.dataset ?? {};
  const sent = d.shop ? post('/console/orders/' + d.shop + '/' + d.does) : d.mark ? post('/console/market/' + d.mark + '/' + d.does) : d.po ? post('/console/trade/' + d.po + (d.does === 'cancel' ? '/cancel' : ''), { lines: [{ sku: 'JAR-454-RD', quantity: 20 }] }) : d.market ? post('/console/market', d.market === 'odd' ? { odd: true } : { lines: [{ offer: 'LM-88121', count: 2 }] }) : d.trade ? post('/console/trade', { lines: TRADE[d.trade], odd: d.trade === 'odd' }) : null;
  if (sent) sent.then(draw, draw);
});
document.addEventListener('click', (e) => { const { move, wrong, how } = e.target.dataset ?? {}; if (move) post('/console/parcels/' + move + '/move').then(draw); if (wrong) post('/console/parcels/' + wrong + '/trouble', { what: how }).then(draw); });
$('buy').addEventListener('submit', async (e) => {
  e.preventDefault();
  const form = new FormData(e.target), lines = [];
  for (const [sku, n] of form) if (/-/.test(sku) && Number(n) > 0) lines.push({ sku, quantity: Number(n) });
  const answer = await post('/console/orders', { customer: form.get('customer'), postcode: form.get('postcode'), note: form.get('note') || null, lines });
  $('said').textContent = answer.ref ? 'Placed ' + answer.ref : answer.message;
  draw();
});
$('weigh').addEventListener('submit', (e) => { e.preventDefault(); post('/console/scale', { grams: Number(new FormData(e.target).get('grams')) }); });
draw(); setInterval(() => { if (!document.activeElement?.dataset?.part) draw(); }, 2000);
`;
