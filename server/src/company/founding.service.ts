import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { PeopleService } from '../identity/index.js';
import { badState, inTransaction, underLock } from '../platform/index.js';
import { addSite } from '../sites/index.js';
import type { FirstOwnerDto } from './company.dto.js';

const FOUNDING = 'vectrum-first-owner';
const WAIT_S = 30;

/** The first act in a new house: its owner and its first site. */
@Injectable()
export class FoundingService {
  constructor(
    private readonly source: DataSource,
    private readonly people: PeopleService,
  ) {}

  /** Makes the owner's account and the first site, both or neither; refused once there is anybody. */
  async found(input: FirstOwnerDto): Promise<void> {
    const holder = this.source.createQueryRunner();
    try {
      await underLock(holder, FOUNDING, WAIT_S, async () => {
        if (!(await this.people.isFirstRun())) throw badState('This house has its owner already. Sign in');
        await inTransaction(this.source, async (tx) => {
          const site = await addSite(tx, { code: input.siteCode.toUpperCase(), name: input.siteName, dock: 'DOCK-1', table: 'TABLE-1' });
          await this.people.add({ ...input, duties: ['owner'], seesCosts: true, siteIds: [site] }, tx);
        });
      });
    } finally {
      await holder.release();
    }
  }
}
