import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { type Act, badForm, CommandLog, marks, one, parsed, prepared, rows, siteDay, type Tx } from '../platform/index.js';
import { keepSetting } from './keep-setting.js';
import type { SettingDto } from './settings.dto.js';
import { settingFault, SETTINGS, type SettingKind, type SettingName, type SettingValue } from './settings.js';

/** A value is wrapped, since the driver hands some JSON over parsed and some as text, and bare text could be either. */
export interface Kept {
  is: unknown;
}

/** What stands at the head of papers and mails. */
export interface Letterhead {
  name: string;
  address: string;
  timeZone: string;
  /** The company's mark, as it stands on a mail; null where it has none. */
  mark: { png: Buffer; width: number; height: number } | null;
}

/** Reads and keeps the company's choices. A choice that was never made has its default. */
@Injectable()
export class SettingsService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  async get<N extends SettingName>(tx: Pick<Tx, 'query'>, name: N): Promise<SettingValue<N>> {
    const [kept] = await prepared<{ value: unknown }[]>(tx, 'SELECT value FROM setting WHERE name = ?', [name]);
    return (kept ? parsed<Kept>(kept.value).is : SETTINGS[name].default) as SettingValue<N>;
  }

  /** Several choices in one reading. */
  async several<N extends SettingName>(tx: Pick<Tx, 'query'>, names: readonly N[]): Promise<{ [K in N]: SettingValue<K> }> {
    const kept = await prepared<{ name: string; value: unknown }[]>(
      tx,
      `SELECT name, value FROM setting WHERE name IN (${marks(names)})`,
      names,
    );
    const known = new Map(kept.map((k) => [k.name, parsed<Kept>(k.value).is]));
    return Object.fromEntries(names.map((name) => [name, known.get(name) ?? SETTINGS[name].default])) as { [K in N]: SettingValue<K> };
  }

  /** What stands at the head of papers, and in which time zone they are dated: that of the house's first site. */
  async letterhead(): Promise<Letterhead> {
    const [name, address, mark] = await Promise.all([
      this.get(this.source, 'companyName'),
      this.get(this.source, 'companyAddress'),
      one<{ png: Buffer; width: number; height: number }>(this.source, 'SELECT png, width, height FROM company_mark LIMIT 1'),
    ]);
    const { timeZone } = await siteDay(this.source, null);
    return { name, address, timeZone, mark: mark ?? null };
  }

  async list(): Promise<SettingDto[]> {
    const kept = new Map(
      (await rows<{ name: string; value: unknown }>(this.source, 'SELECT name, value FROM setting')).map((s) => [
        s.name,
        parsed<Kept>(s.value).is,
      ]),
    );
    return Object.entries(SETTINGS).map(([name, setting]) => {
      const kind: SettingKind = setting;
      return {
        name,
        group: setting.group,
        label: setting.label,
        says: setting.says,
        kind: kind.kind,
        value: String(kept.get(name) ?? setting.default),
        standard: String(setting.default),
        choices: kind.kind === 'choice' ? [...kind.choices] : [],
        unit: kind.kind === 'whole' ? kind.unit : '',
      };
    });
  }

  /** Keeps one choice, given as text. */
  set(act: Act, name: string, text: string): Promise<void> {
    return this.commands.run(act, 'setting', { name, text }, async (tx) => {
      if (!Object.hasOwn(SETTINGS, name)) throw badForm({ name: `There is no setting called ${name.slice(0, 40)}` });
      const known = name as SettingName;
      const setting: SettingKind & { label: string } = SETTINGS[known];
      const value =
        setting.kind === 'whole'
          ? /^\d{1,9}$/.test(text.trim())
            ? Number(text)
            : NaN
          : setting.kind === 'yes-no'
            ? text === 'true'
              ? true
              : text === 'false'
                ? false
                : text
            : text.trim();
      const wrong =
        known === 'homeCurrency' && !/^[A-Z]{3}$/.test(text.trim())
          ? 'A currency is three capital letters, such as GBP'
          : settingFault(known, value);
      if (wrong) throw badForm({ [name]: wrong });
      if (known === 'costMethod' && (await one(tx, 'SELECT item_id FROM cost_pool WHERE units > 0 LIMIT 1')))
        throw badForm({ [name]: 'There is stock that was valued the other way. The choice is made before the first goods come in' });
      await keepSetting(tx, name, { is: value } satisfies Kept);
      await this.activity.record(tx, act, {
        kind: 'setup',
        glyph: 'full',
        title: setting.label,
        detail: `now ${text.trim() === '' ? 'empty' : text.trim()}`,
      });
    });
  }
}
