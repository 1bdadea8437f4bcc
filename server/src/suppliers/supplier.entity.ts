import { Column, Entity, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';

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
