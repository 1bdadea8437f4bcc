import type { OrderState } from '@vectrum/core/orders';
import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';

@Entity('sales_order')
export class SalesOrder {
  @PrimaryGeneratedColumn() id: number;
  @Column() code: string;
  @Column({ name: 'channel_id' }) channelId: number;
  @Column({ name: 'channel_ref' }) channelRef: string;
  @Column({ name: 'site_id' }) siteId: number;
  @Column({ type: 'varchar' }) state: OrderState;
  @Column({ name: 'hold_reason', type: 'varchar', nullable: true }) holdReason: string | null;
  @Column() customer: string;
  @Column() email: string;
  @Column({ name: 'address_line' }) addressLine: string;
  @Column() city: string;
  @Column() postcode: string;
  @Column() country: string;
  @Column() priority: number;
  @Column({ name: 'placed_at', type: 'datetime', precision: 3 }) placedAt: Date;
  @Column({ name: 'promised_at', type: 'datetime', precision: 3 }) promisedAt: Date;
  @Column() speed: string;
  @Column({ name: 'note_packer', type: 'varchar', nullable: true }) notePacker: string | null;
  @Column({ name: 'note_picker', type: 'varchar', nullable: true }) notePicker: string | null;
  @Column({ name: 'note_seen_by', type: 'int', nullable: true }) noteSeenBy: number | null;
  @Column({ name: 'shipped_at', type: 'datetime', precision: 3, nullable: true }) shippedAt: Date | null;
  @Column() version: number;
}

@Entity('sales_order_line')
export class SalesOrderLine {
  @PrimaryGeneratedColumn() id: number;
  @Column({ name: 'order_id' }) orderId: number;
  @Column() line: number;
  @Column({ name: 'channel_sku' }) channelSku: string;
  @Column({ name: 'item_id', type: 'int', nullable: true }) itemId: number | null;
  @Column() quantity: number;
  @Column() units: number;
  @Column({ type: 'decimal' }) price: string;
  @Column({ name: 'picked_units' }) pickedUnits: number;
  @Column({ name: 'packed_units' }) packedUnits: number;
  @Column({ name: 'shipped_units' }) shippedUnits: number;
}
