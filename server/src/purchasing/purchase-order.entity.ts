import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';

export const PO_STATES = ['draft', 'placed', 'part-received', 'received', 'closed', 'cancelled'] as const;
export type PurchaseOrderState = (typeof PO_STATES)[number];

@Entity('purchase_order')
export class PurchaseOrder {
  @PrimaryGeneratedColumn() id: number;
  @Column() code: string;
  @Column({ name: 'supplier_id' }) supplierId: number;
  @Column({ name: 'site_id' }) siteId: number;
  @Column({ type: 'varchar' }) state: PurchaseOrderState;
  @Column() currency: string;
  @Column({ name: 'expected_on', type: 'date', nullable: true }) expectedOn: string | null;
  @Column() note: string;
  @Column({ name: 'created_by' }) createdBy: number;
  @Column({ name: 'placed_at', type: 'datetime', precision: 3, nullable: true }) placedAt: Date | null;
  @Column({ name: 'placed_by', type: 'int', nullable: true }) placedBy: number | null;
  @Column({ name: 'first_received_at', type: 'datetime', precision: 3, nullable: true })
  firstReceivedAt: Date | null;
  @Column() version: number;
}

@Entity('purchase_order_line')
export class PurchaseOrderLine {
  @PrimaryGeneratedColumn() id: number;
  @Column({ name: 'order_id' }) orderId: number;
  @Column() line: number;
  @Column({ name: 'item_id' }) itemId: number;
  @Column({ name: 'pack_unit_id' }) packUnitId: number;
  @Column() packs: number;
  @Column() factor: number;
  @Column({ type: 'decimal' }) price: string;
  @Column({ name: 'received_units' }) receivedUnits: number;
}
