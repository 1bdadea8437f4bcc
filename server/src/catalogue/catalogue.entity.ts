import { Column, Entity, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';

export const TRACKINGS = ['none', 'lot', 'lot-expiry', 'serial'] as const;
export type Tracking = (typeof TRACKINGS)[number];
/** A kit is sold together and picked by its parts; an assembly is built here of its parts and labour. */
export const ITEM_KINDS = ['single', 'kit', 'assembly'] as const;
export type ItemKind = (typeof ITEM_KINDS)[number];
/** Where goods may stand: anywhere, only in cold zones, only in restricted zones. */
export const STORAGES = ['any', 'cold', 'restricted'] as const;
export type Storage = (typeof STORAGES)[number];
export const ROTATIONS = ['fifo', 'fefo'] as const;

@Entity('item')
export class Item {
  @PrimaryGeneratedColumn() id: number;
  @Column() sku: string;
  @Column() name: string;
  @Column({ name: 'class' }) className: string;
  @Column() picture: string;
  @Column({ type: 'varchar' }) tracking: Tracking;
  @Column({ type: 'varchar' }) rotation: 'fifo' | 'fefo';
  @Column({ type: 'decimal', nullable: true }) cost: string | null;
  @Column({ name: 'never_holds_up', type: 'tinyint' }) neverHoldsUp: number;
  @Column({ type: 'varchar' }) kind: ItemKind;
  @Column({ type: 'decimal', nullable: true }) labour: string | null;
  @Column({ type: 'varchar' }) storage: Storage;
  /** Days of life that goods must have left on arrival; null where any will do. */
  @Column({ name: 'min_life_days', type: 'int', nullable: true }) minLifeDays: number | null;
  @Column({ name: 'tax_code', type: 'varchar', nullable: true }) taxCode: string | null;
  @Column({ type: 'simple-json' }) extra: Record<string, string>;
  @Column() version: number;
}

@Entity('pack_unit')
export class PackUnitRow {
  @PrimaryGeneratedColumn() id: number;
  @Column({ name: 'item_id' }) itemId: number;
  @Column() name: string;
  @Column() plural: string;
  @Column() factor: number;
  @Column({ name: 'weight_g', type: 'int', nullable: true }) weightG: number | null;
  @Column({ name: 'length_mm', type: 'int', nullable: true }) lengthMm: number | null;
  @Column({ name: 'width_mm', type: 'int', nullable: true }) widthMm: number | null;
  @Column({ name: 'height_mm', type: 'int', nullable: true }) heightMm: number | null;
}

@Entity('barcode')
export class Barcode {
  @PrimaryGeneratedColumn() id: number;
  @Column() code: string;
  @Column({ name: 'pack_unit_id' }) packUnitId: number;
}

@Entity('supplier')
export class Supplier {
  @PrimaryGeneratedColumn() id: number;
  @Column() code: string;
  @Column() name: string;
  @Column() email: string;
  @Column() phone: string;
  @Column() currency: string;
  @Column({ name: 'lead_days' }) leadDays: number;
  @Column() terms: string;
  /** Seven letters from Monday, Y where they work. */
  @Column({ name: 'working_days' }) workingDays: string;
  @Column({ name: 'least_value', type: 'decimal', nullable: true }) leastValue: string | null;
  @Column({ name: 'least_units', type: 'int', nullable: true }) leastUnits: number | null;
  @Column({ name: 'least_pallets', type: 'int', nullable: true }) leastPallets: number | null;
  @Column() version: number;
}

@Entity('supplier_item')
export class SupplierItem {
  @PrimaryColumn({ name: 'supplier_id' }) supplierId: number;
  @PrimaryColumn({ name: 'item_id' }) itemId: number;
  @Column({ name: 'pack_unit_id' }) packUnitId: number;
  @Column({ name: 'supplier_sku' }) supplierSku: string;
  @Column({ type: 'decimal' }) price: string;
}

@Entity('channel')
export class Channel {
  @PrimaryGeneratedColumn() id: number;
  @Column() code: string;
  @Column() name: string;
  @Column({ type: 'varchar' }) kind: 'web-shop' | 'marketplace' | 'trade' | 'phone';
  @Column({ name: 'site_id' }) siteId: number;
  @Column({ name: 'base_url', type: 'varchar', nullable: true }) baseUrl: string | null;
  @Column({ type: 'varchar', nullable: true }) secret: string | null;
  @Column({ name: 'poll_cursor' }) pollCursor: string;
  @Column({ name: 'poll_error', type: 'varchar', nullable: true }) pollError: string | null;
  @Column() version: number;
}

@Entity('listing')
export class Listing {
  @PrimaryGeneratedColumn() id: number;
  @Column({ name: 'channel_id' }) channelId: number;
  @Column({ name: 'channel_sku' }) channelSku: string;
  @Column({ name: 'item_id' }) itemId: number;
  @Column() factor: number;
  @Column({ name: 'keep_back' }) keepBack: number;
  @Column({ type: 'decimal' }) price: string;
}
