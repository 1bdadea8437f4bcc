import type { ZoneRule } from '@vectrum/core/places';
import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';

@Entity('site')
export class Site {
  @PrimaryGeneratedColumn() id: number;
  @Column() code: string;
  @Column() name: string;
  @Column({ name: 'time_zone' }) timeZone: string;
}

@Entity('place')
export class Place {
  @PrimaryGeneratedColumn() id: number;
  @Column({ name: 'site_id', type: 'int', nullable: true }) siteId: number | null;
  @Column({ name: 'parent_id', type: 'int', nullable: true }) parentId: number | null;
  @Column() code: string;
  @Column() kind: string;
  @Column({ type: 'tinyint' }) pickable: number;
  @Column({ type: 'tinyint' }) blocked: number;
  @Column({ name: 'walk_order' }) walkOrder: number;
  @Column({ name: 'x_m', type: 'decimal', nullable: true }) x: string | null;
  @Column({ name: 'y_m', type: 'decimal', nullable: true }) y: string | null;
  @Column({ name: 'aisle_id', type: 'int', nullable: true }) aisleId: number | null;
  @Column({ name: 'along_m', type: 'decimal', nullable: true }) along: string | null;
  @Column({ name: 'fixed_order', type: 'tinyint' }) fixedOrder: number;
  @Column({ name: 'holds_ml', type: 'int', nullable: true }) holdsMl: number | null;
  @Column({ name: 'holds_g', type: 'int', nullable: true }) holdsG: number | null;
  @Column() name: string;
  @Column({ type: 'varchar' }) rule: ZoneRule;
  @Column() version: number;
}
