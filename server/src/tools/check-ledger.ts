import 'reflect-metadata';
import { DataSource } from 'typeorm';
import { readConfig } from '../platform/config.js';
import { dataSourceOptions } from '../platform/database/data-source.js';
import { num, one } from '../platform/database/tx.js';
import { checkOrders } from '../orders/order-check.js';
import { checkLedger } from '../stock/ledger-check.js';

const source = await new DataSource(dataSourceOptions(readConfig(process.env))).initialize();
const findings = [...(await checkLedger(source)), ...(await checkOrders(source))];
const count = await one<{ n: string }>(source, 'SELECT COUNT(*) AS n FROM movement');
await source.destroy();
for (const finding of findings) process.stdout.write(`${finding}\n`);
process.stdout.write(`${findings.length === 0 ? 'The ledger is clean' : `${findings.length} findings`}: ${num(count?.n)} movements.\n`);
process.exit(findings.length === 0 ? 0 : 1);
