import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { within } from '../platform/index.js';

const READY_MS = 2_000;

/** Asks the database for a sign of life. */
@Injectable()
export class HealthQueries {
  constructor(private readonly source: DataSource) {}

  /** Whether the database answers, soon enough for people. */
  answers(): Promise<boolean> {
    return within(READY_MS, this.source.query('SELECT 1'), 'no answer').then(
      () => true,
      () => false,
    );
  }
}
