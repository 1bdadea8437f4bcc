import { Barcode, Item, PackUnitRow } from './catalogue/index.js';
import { Channel, Listing } from './channels/index.js';
import { PersonRow } from './identity/index.js';
import { SalesOrder, SalesOrderLine } from './orders/index.js';
import type { Schema } from './platform/index.js';
import { PurchaseOrder, PurchaseOrderCharge, PurchaseOrderLine } from './purchasing/index.js';
import { migrations } from './schema/index.js';
import { Place, Site } from './sites/index.js';
import { Supplier, SupplierItem } from './suppliers/index.js';

/** What the database holds: every module's entities, and the steps that made their tables. */
export const schema: Schema = {
  migrations,
  entities: [
    Site,
    Place,
    PersonRow,
    Item,
    PackUnitRow,
    Barcode,
    Supplier,
    SupplierItem,
    Channel,
    Listing,
    PurchaseOrder,
    PurchaseOrderCharge,
    PurchaseOrderLine,
    SalesOrder,
    SalesOrderLine,
  ],
};
