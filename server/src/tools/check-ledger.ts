import 'reflect-metadata';
import { DataSource } from 'typeorm';
import { checkReturns } from '../customer-returns/index.js';
import { checkInvoices } from '../invoicing/index.js';
import { checkOrders } from '../orders/index.js';
import { dataSourceOptions, num, one, readConfig } from '../platform/index.js';
import { checkLedger } from '../stock/index.js';
import { migrations } from '../schema/index.js';

const source = await new DataSource(dataSourceOptions(readConfig(process.env), migrations)).initialize();
const findings = [
  ...(await checkLedger(source)),
  ...(await checkOrders(source)),
  ...(await checkInvoices(source)),
  ...(await checkReturns(source)),
];
const count = await one<{ n: string }>(source, 'SELECT COUNT(*) AS n FROM movement');
await source.destroy();
for (const finding of findings) process.stdout.write(`${finding}\n`);
process.stdout.write(`${findings.length === 0 ? 'The ledger is clean' : `${findings.length} findings`}: ${num(count?.n)} movements.\n`);
process.exit(findings.length === 0 ? 0 : 1);
