import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import {
  type Act,
  badForm,
  CommandLog,
  insert,
  inTransaction,
  mustBeAt,
  notFound,
  NOW,
  one,
  Problem,
  rows,
  update,
} from '../platform/index.js';
import type { DeviceDto, EditDeviceDto } from './identity.dto.js';
import { newToken, shortCode, tokenHash } from './secrets.js';
import { enrolTries, Tries } from './tries.service.js';

const ENROLMENT_MINUTES = 30;

/** Devices that people share: enrolled once by a code from the office, then revoked when lost. */
@Injectable()
export class DeviceService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly tries: Tries,
  ) {}

  list(siteIds: readonly number[]) {
    return rows<DeviceDto>(
      this.source,
      `SELECT d.id, d.name, s.name AS site, d.site_id AS siteId, d.printer_id AS printerId, p.name AS printer, d.enrolled_at AS enrolledAt, d.revoked_at AS revokedAt,
         (SELECT MAX(x.created_at) FROM session x WHERE x.device_id = d.id) AS lastUsedAt
       FROM device d JOIN site s ON s.id = d.site_id LEFT JOIN printer p ON p.id = d.printer_id WHERE d.site_id IN (?) ORDER BY d.revoked_at IS NOT NULL, d.name`,
      [[0, ...siteIds]],
    );
  }

  /** Names a device, or gives it a printer of its own site. */
  edit(act: Act, id: number, input: EditDeviceDto): Promise<void> {
    return this.commands.run(act, 'device.edit', { id, input }, async (tx) => {
      const device = await one<{ site_id: number }>(tx, 'SELECT site_id FROM device WHERE id = ? FOR UPDATE', [id]);
      if (!device) throw notFound('That device');
      mustBeAt(act.person, device.site_id);
      const printer = input.printerId
        ? await one(tx, 'SELECT id FROM printer WHERE id = ? AND site_id = ?', [input.printerId, device.site_id])
        : true;
      if (!printer) throw badForm({ printerId: 'That printer is not at the device’s site' });
      await update(
        tx,
        'device',
        { id },
        {
          ...(input.name === undefined ? {} : { name: input.name.trim() }),
          ...(input.printerId === undefined ? {} : { printer_id: input.printerId }),
        },
      );
    });
  }

  /** A code that enrols one device within half an hour. */
  openEnrolment(act: Act, siteId: number, name: string): Promise<{ code: string }> {
    mustBeAt(act.person, siteId);
    return this.commands.run(act, 'device.enrolment', { siteId, name }, async (tx) => {
      const code = shortCode();
      await tx.query(
        'INSERT INTO device_enrolment (code_hash, site_id, name, expires_at) VALUES (?, ?, ?, UTC_TIMESTAMP(3) + INTERVAL ? MINUTE)',
        [tokenHash(code), siteId, name, ENROLMENT_MINUTES],
      );
      return { code };
    });
  }

  /** Spends an enrolment code; returns the token for the device's cookie. */
  async enrol(code: string, address: string): Promise<string> {
    await this.tries.count(enrolTries(address));
    return inTransaction(this.source, async (tx) => {
      const hash = tokenHash(code.trim().toUpperCase());
      const open = await one<{ site_id: number; name: string }>(
        tx,
        'SELECT site_id, name FROM device_enrolment WHERE code_hash = ? AND used_at IS NULL AND expires_at > UTC_TIMESTAMP(3) FOR UPDATE',
        [hash],
      );
      if (!open) throw new Problem(403, 'device', 'This enrolment code is spent or too old. Make a new one in Setup');
      const token = newToken();
      await update(tx, 'device_enrolment', { code_hash: hash }, { used_at: NOW });
      await insert(tx, 'device', { name: open.name, site_id: open.site_id, token_hash: tokenHash(token) });
      return token;
    });
  }

  revoke(act: Act, id: number): Promise<void> {
    return this.commands.run(act, 'device.revoke', { id }, async (tx) => {
      const device = await one<{ site_id: number }>(tx, 'SELECT site_id FROM device WHERE id = ? FOR UPDATE', [id]);
      if (!device) throw notFound('That device');
      mustBeAt(act.person, device.site_id);
      await tx.query('UPDATE device SET revoked_at = COALESCE(revoked_at, UTC_TIMESTAMP(3)) WHERE id = ?', [id]);
      await update(tx, 'session', { device_id: id, ended_at: null }, { ended_at: NOW });
    });
  }
}
