import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';

export const PO_STATES = ['draft', 'placed', 'part-received', 'received', 'closed', 'cancelled'] as const;
export const ORDER_ANSWERS = ['', 'acknowledged', 'confirmed', 'to-settle', 'queried', 'refused'] as const;
export type OrderAnswer = (typeof ORDER_ANSWERS)[number];
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
  /** The dock it comes to; null for whichever is free. */
  @Column({ name: 'door_id', type: 'int', nullable: true }) doorId: number | null;
  @Column() note: string;
  @Column({ name: 'created_by' }) createdBy: number;
  @Column({ name: 'placed_at', type: 'datetime', precision: 3, nullable: true }) placedAt: Date | null;
  @Column({ name: 'placed_by', type: 'int', nullable: true }) placedBy: number | null;
  @Column({ name: 'first_received_at', type: 'datetime', precision: 3, nullable: true })
  firstReceivedAt: Date | null;
  /** What the supplier has said to it. */
  @Column({ type: 'varchar' }) answer: OrderAnswer;
  @Column({ name: 'answer_note' }) answerNote: string;
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
  @Column({ name: 'expected_on', type: 'date', nullable: true }) expectedOn: string | null;
  @Column({ name: 'received_units' }) receivedUnits: number;
  /** Base units that nobody waits for any more. */
  @Column({ name: 'closed_units' }) closedUnits: number;
  @Column({ name: 'open_units', insert: false, update: false }) openUnits: number;
  @Column({ type: 'varchar', nullable: true }) answer: 'accepted' | 'changed' | 'refused' | null;
  @Column({ name: 'answer_packs', type: 'int', nullable: true }) answerPacks: number | null;
  @Column({ name: 'answer_price', type: 'decimal', nullable: true }) answerPrice: string | null;
  @Column({ name: 'answer_on', type: 'date', nullable: true }) answerOn: string | null;
  @Column({ name: 'answer_note' }) answerNote: string;
}

@Entity('purchase_order_charge')
export class PurchaseOrderCharge {
  @PrimaryGeneratedColumn() id: number;
  @Column({ name: 'order_id' }) orderId: number;
  @Column() position: number;
  @Column() says: string;
  @Column({ type: 'decimal' }) amount: string;
  @Column({ name: 'shared_by', type: 'varchar' }) sharedBy: 'value' | 'units' | 'weight' | 'volume';
}
