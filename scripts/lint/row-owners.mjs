import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';

/** Which module writes the rows of which tables. Everybody may read. */
const OWNED = {
  platform: ['command', 'outbox', 'number_series', 'list_version'],
  activity: ['activity'],
  desk: ['act_picture'],
  settings: ['setting'],
  identity: [
    'person',
    'person_site',
    'person_token',
    'session',
    'device',
    'device_enrolment',
    'preference',
    'sign_in_try',
    'person_change',
  ],
  letters: ['letter', 'company_mark'],
  exchange: ['import_run', 'import_row', 'import_fault', 'import_made', 'import_mapping', 'feed_key'],
  sites: ['site', 'place', 'plan_shape', 'stands'],
  company: ['currency', 'tax_rate', 'departure', 'closed_day'],
  catalogue: ['item', 'item_part', 'item_site', 'item_tag', 'item_picture', 'pack_unit', 'barcode', 'extra_field', 'unmatched_code'],
  stock: ['lot', 'movement', 'balance', 'site_stock', 'cost_pool', 'cost_layer', 'cost_layer_part', 'value_entry', 'value_change'],
  allocation: ['reservation', 'earmark', 'container_move'],
  suppliers: ['supplier', 'supplier_item', 'supplier_contact', 'supplier_price_break'],
  printing: ['printer', 'print_job', 'label_design'],
  floor: ['floor_question', 'book_change', 'book_head'],
  carriers: ['carrier', 'carrier_lane', 'carrier_service', 'carton', 'carton_stock'],
  purchasing: ['purchase_order', 'purchase_order_line', 'purchase_order_charge', 'purchase_order_change', 'purchase_order_file'],
  returns: ['supplier_return', 'supplier_return_line'],
  inspection: ['inspection', 'inspection_rule', 'inspection_answer', 'inspection_verdict', 'checklist', 'checklist_check'],
  receiving: [
    'arrival',
    'arrival_order',
    'announced_goods',
    'receipt',
    'receipt_picture',
    'received_pallet',
    'supplier_document',
    'unread_document',
  ],
  books: ['bill', 'bill_line', 'bill_charge', 'own_account', 'journal_export', 'timetable', 'period_close'],
  invoicing: ['invoice', 'invoice_line', 'payment', 'payment_share'],
  'customer-returns': ['customer_return', 'customer_return_line', 'came_back', 'came_back_picture', 'return_refund', 'return_credit'],
  customers: ['customer', 'customer_address', 'customer_price'],
  channels: ['channel', 'channel_site', 'listing'],
  orders: ['sales_order', 'sales_order_line', 'sales_order_change', 'order_hold', 'insert_rule'],
  connectors: ['parked_message', 'channel_exchange'],
  counting: ['spot_count', 'stock_count', 'count_bin', 'count_line', 'count_look', 'count_code', 'count_rule'],
  picking: ['daily_run', 'round', 'round_order', 'round_stop', 'tote_use'],
  transfers: ['transfer', 'transfer_line', 'transfer_goods', 'transfer_parcel'],
  tracing: ['lot_recall'],
  building: ['build', 'build_part'],
  planning: ['demand_week', 'demand_read', 'item_plan', 'buying_rule', 'demand_mark', 'buying_choice', 'buying_day', 'back_test'],
  weighing: ['scale'],
  packing: ['parcel', 'parcel_line', 'parcel_label', 'parcel_serial', 'parcel_picture'],
  dispatch: ['hand_over'],
  tracking: ['parcel_event', 'carrier_poll', 'claim'],
};

const OWNER = new Map(Object.entries(OWNED).flatMap(([module, tables]) => tables.map((table) => [table, module])));
const SQL = /\b(?:INSERT (?:IGNORE )?INTO|UPDATE|DELETE FROM|REPLACE INTO) `?([a-z][a-z_]+)`?/g;
const HELPER = /\b(?:insert|insertMany|update|remove)(?:<[^>]*>)?\(\s*[\w.]+,\s*'([a-z_]+)'/g;
/** The demo dates papers back, which no service does; migrations and tools stand outside the modules. */
const APART = new Set(['schema', 'tools', 'demo']);

function* files(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* files(path);
    else if (path.endsWith('.ts')) yield path;
  }
}

/** Where a module of the server writes rows that are another's, in words. */
export function rowFindings(root) {
  const findings = [];
  for (const path of files(root)) {
    const own = relative(root, path);
    const module = own.split('/')[0];
    if (APART.has(module) || !own.includes('/')) continue;
    const text = readFileSync(path, 'utf8');
    for (const [at, table] of [...text.matchAll(SQL), ...text.matchAll(HELPER)].map((m) => [m.index, m[1]])) {
      // "ON DUPLICATE KEY UPDATE units = …" names a column, not a table.
      if (/DUPLICATE KEY $/.test(text.slice(Math.max(0, at - 14), at))) continue;
      const owner = OWNER.get(table);
      if (owner === module) continue;
      findings.push(
        owner
          ? `server/src/${own}: writes ${table}, which is ${owner}'s. Ask that module to`
          : `server/src/${own}: nobody owns ${table} (scripts/lint/row-owners.mjs)`,
      );
    }
  }
  return findings;
}
