import { Channel, Item, Listing, PackUnitRow, Barcode, Supplier, SupplierItem } from '../../catalogue/catalogue.entity.js';
import { PersonRow } from '../../identity/person.entity.js';
import { SalesOrder, SalesOrderLine } from '../../orders/sales-order.entity.js';
import { PurchaseOrder, PurchaseOrderCharge, PurchaseOrderLine } from '../../purchasing/purchase-order.entity.js';
import { Place, Site } from '../../sites/place.entity.js';

export const entities = [
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
  PurchaseOrderLine,
  PurchaseOrderCharge,
  SalesOrder,
  SalesOrderLine,
];
