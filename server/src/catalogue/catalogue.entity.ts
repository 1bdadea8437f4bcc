import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';

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
