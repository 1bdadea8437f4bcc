import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';

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
