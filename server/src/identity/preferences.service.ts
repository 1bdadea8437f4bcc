import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { one, parsed } from '../platform/index.js';

/** Keeps what people arrange for themselves. The last one written stands; nobody else is touched by it. */
@Injectable()
export class PreferencesService {
  constructor(private readonly source: DataSource) {}

  async read(personId: number, name: string): Promise<Record<string, unknown>> {
    const kept = await one<{ value: unknown }>(this.source, 'SELECT value FROM preference WHERE person_id = ? AND name = ?', [
      personId,
      name,
    ]);
    return kept ? parsed<Record<string, unknown>>(kept.value) : {};
  }

  async keep(personId: number, name: string, json: string): Promise<void> {
    await this.source.query(
      'INSERT INTO preference (person_id, name, value) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE value = VALUES(value)',
      [personId, name, json],
    );
  }
}
