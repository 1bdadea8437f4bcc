import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { type Duty, rightsOf } from '../identity/index.js';
import { parsed, rows } from '../platform/index.js';
import type { OwnerDto } from './order-desk.dto.js';

/** Those who may see to an order that waits: people of the order desk at one of the reader's sites. */
@Injectable()
export class OwnersQueries {
  constructor(private readonly source: DataSource) {}

  async list(siteIds: readonly number[]): Promise<OwnerDto[]> {
    const found = await rows<{ id: number; name: string; duties: unknown }>(
      this.source,
      'SELECT p.id, p.name, p.duties FROM person p WHERE p.active = 1 AND EXISTS (SELECT 1 FROM person_site s WHERE s.person_id = p.id AND s.site_id IN (?)) ORDER BY p.name',
      [[0, ...siteIds]],
    );
    return found.filter((p) => rightsOf(parsed<Duty[]>(p.duties)).has('order-desk')).map(({ id, name }) => ({ id, name }));
  }
}
