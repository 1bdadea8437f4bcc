import { House1790000000001 } from './0001-house.js';
import { Catalogue1790000000002 } from './0002-catalogue.js';
import { Stock1790000000003 } from './0003-stock.js';
import { Purchasing1790000000004 } from './0004-purchasing.js';
import { Orders1790000000005 } from './0005-orders.js';

/** In the order in which they run. */
export const migrations = [House1790000000001, Catalogue1790000000002, Stock1790000000003, Purchasing1790000000004, Orders1790000000005];
