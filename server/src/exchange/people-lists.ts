import { Injectable } from '@nestjs/common';
import { DeviceService, PeopleQueries } from '../identity/index.js';
import { listTable, Lists } from './lists.js';

/** The lists of people and devices as files; they stand below this module and cannot register their own. */
@Injectable()
export class PeopleLists {
  constructor(lists: Lists, people: PeopleQueries, devices: DeviceService) {
    lists.register(
      'people',
      async (person) =>
        listTable('people', await people.list(person), [
          ['Name', (p) => p.name],
          ['E-mail', (p) => p.email],
          ['Duties', (p) => p.duties.join('; ')],
          ['Sites', (p) => p.sites],
          ['Badge', (p) => p.badge],
          ['May see costs', (p) => (p.seesCosts ? 'yes' : 'no')],
          ['State', (p) => p.state],
        ]),
      'set-up',
    );
    lists.register(
      'devices',
      async (person) =>
        listTable('devices', await devices.list(person.siteIds), [
          ['Device', (d) => d.name],
          ['Site', (d) => d.site],
          ['Printer', (d) => d.printer],
          ['Enrolled', (d) => d.enrolledAt],
          ['Revoked', (d) => d.revokedAt],
        ]),
      'set-up',
    );
  }
}
