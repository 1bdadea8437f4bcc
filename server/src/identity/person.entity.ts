import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';
import type { Duty } from './duties.js';

@Entity('person')
export class PersonRow {
  @PrimaryGeneratedColumn() id: number;
  @Column() name: string;
  @Column() email: string;
  @Column({ name: 'password_hash' }) passwordHash: string;
  @Column({ name: 'badge_code', type: 'varchar', nullable: true }) badgeCode: string | null;
  @Column({ name: 'pin_hash', type: 'varchar', nullable: true }) pinHash: string | null;
  @Column({ type: 'simple-json' }) duties: Duty[];
  @Column({ name: 'sees_costs', type: 'tinyint' }) seesCosts: number;
  @Column({ type: 'tinyint' }) active: number;
  @Column({ name: 'failed_signins' }) failedSignins: number;
  @Column({ name: 'locked_until', type: 'datetime', nullable: true }) lockedUntil: Date | null;
}
