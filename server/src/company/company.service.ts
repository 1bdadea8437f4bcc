import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  insertMany,
  listVersion,
  mustBeAt,
  mustMatch,
  notFound,
  one,
  remove,
  replaceList,
  rows,
  SERIES,
  seriesCode,
  type SeriesName,
  setNextNumber,
} from '../platform/index.js';
import { joinSites } from '../identity/index.js';
import { addSite, keepSite } from '../sites/index.js';
import type { EditSiteCalendarDto, MoneyDto, MoneyListsDto, NewSiteDto, SeriesDto, SetSeriesDto, SiteCalendarDto } from './company.dto.js';

/** Currencies and taxes, the sites with their working days and departures, and how documents are numbered. */
@Injectable()
export class CompanyService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  async money(): Promise<MoneyListsDto> {
    const [version, currencies, taxRates] = await Promise.all([
      listVersion(this.source, 'money'),
      rows<MoneyDto['currencies'][number]>(this.source, 'SELECT code, rate, as_of AS asOf FROM currency ORDER BY code'),
      rows<MoneyDto['taxRates'][number]>(this.source, 'SELECT code, name, percent FROM tax_rate ORDER BY code'),
    ]);
    const bare = (n: string) => n.replace(/\.?0+$/, '');
    return {
      version,
      currencies: currencies.map((c) => ({ ...c, rate: bare(c.rate) })),
      taxRates: taxRates.map((t) => ({ ...t, percent: bare(t.percent) || '0' })),
    };
  }

  /** Replaces the lists. A currency of a supplier and a tax rate of an item must stay. */
  setMoney(act: Act, version: number, input: MoneyDto): Promise<void> {
    return this.commands.run(act, 'money', { version, input }, async (tx) => {
      await replaceList(tx, 'money', version);
      const codes = input.taxRates.map((t) => t.code.toUpperCase());
      if (new Set(codes).size !== codes.length) throw badForm({ taxRates: 'Two tax rates have the same code' });
      if (new Set(input.currencies.map((c) => c.code)).size !== input.currencies.length)
        throw badForm({ currencies: 'A currency stands on the list twice' });
      const taxed = await one<{ code: string }>(
        tx,
        'SELECT tax_code AS code FROM item WHERE tax_code IS NOT NULL AND tax_code NOT IN (?) LIMIT 1',
        [['', ...codes]],
      );
      if (taxed) throw badState(`Items are taxed at ${taxed.code}. It must stay`);
      const exempt = await one<{ code: string }>(
        tx,
        'SELECT tax_code AS code FROM customer WHERE tax_code IS NOT NULL AND tax_code NOT IN (?) LIMIT 1',
        [['', ...codes]],
      );
      if (exempt) throw badState(`Customers are taxed at ${exempt.code}. It must stay`);
      await tx.query('DELETE FROM currency');
      await insertMany(
        tx,
        'currency',
        ['code', 'rate', 'as_of'],
        input.currencies.map((c) => [c.code, c.rate, c.asOf]),
      );
      await tx.query('DELETE FROM tax_rate');
      await insertMany(
        tx,
        'tax_rate',
        ['code', 'name', 'percent'],
        input.taxRates.map((t, i) => [codes[i], t.name.trim(), t.percent]),
      );
      await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title: 'Currencies and tax rates changed' });
    });
  }

  async calendars(siteIds: readonly number[]): Promise<SiteCalendarDto[]> {
    const sites = await rows<Omit<SiteCalendarDto, 'departures' | 'picks'> & { picks: number }>(
      this.source,
      'SELECT id AS siteId, name AS site, time_zone AS timeZone, working_days AS workingDays, picks, address_line AS addressLine, city, postcode, country, version FROM site WHERE id IN (?) ORDER BY id',
      [[0, ...siteIds]],
    );
    const departures = await rows<SiteCalendarDto['departures'][number] & { siteId: number }>(
      this.source,
      `SELECT d.site_id AS siteId, d.name, COALESCE(c.code, '') AS carrier, TIME_FORMAT(d.leaves_at, '%H:%i') AS leavesAt, d.closes_minutes AS closesMinutes FROM departure d LEFT JOIN carrier c ON c.id = d.carrier_id WHERE d.site_id IN (?) ORDER BY d.leaves_at`,
      [[0, ...siteIds]],
    );
    return sites.map((s) => ({
      ...s,
      picks: s.picks === 1,
      departures: departures.filter((d) => d.siteId === s.siteId).map(({ siteId: _, ...d }) => d),
    }));
  }

  setCalendar(act: Act, siteId: number, version: number, input: EditSiteCalendarDto): Promise<void> {
    mustBeAt(act.person, siteId);
    return this.commands.run(act, 'site.calendar', { siteId, version, input }, async (tx) => {
      if (!isZone(input.timeZone)) throw badForm({ timeZone: 'Type a time zone, such as Europe/London' });
      const site = await one<{ name: string; version: number }>(tx, 'SELECT name, version FROM site WHERE id = ? FOR UPDATE', [siteId]);
      if (!site) throw notFound('That site');
      mustMatch(site.version, version);
      await keepSite(tx, siteId, { ...input, version: version + 1 });
      await remove(tx, 'departure', { site_id: siteId });
      const carriers = new Map((await rows<{ id: number; code: string }>(tx, 'SELECT id, code FROM carrier')).map((c) => [c.code, c.id]));
      const stranger = input.departures.find((d) => d.carrier !== '' && !carriers.has(d.carrier));
      if (stranger) throw badForm({ departures: `There is no carrier ${stranger.carrier}` });
      await insertMany(
        tx,
        'departure',
        ['site_id', 'carrier_id', 'name', 'leaves_at', 'closes_minutes'],
        input.departures.map((d) => [siteId, carriers.get(d.carrier) ?? null, d.name.trim(), d.leavesAt, d.closesMinutes]),
      );
      await this.activity.record(tx, act, {
        kind: 'setup',
        glyph: 'full',
        title: `Address, working days and departures of ${site.name} changed`,
        siteId,
      });
    });
  }

  /** Makes a site with a dock and a packing table; the person who makes it works there too. */
  addSite(act: Act, input: NewSiteDto): Promise<{ code: string }> {
    return this.commands.run(act, 'site.add', input, async (tx) => {
      const code = input.code.toUpperCase();
      if (await one(tx, 'SELECT id FROM site WHERE code = ?', [code])) throw badForm({ code: `${code} is taken. Choose another code` });
      const id = await addSite(tx, { code, name: input.name.trim(), dock: `${code}-DOCK`, table: `${code}-TABLE` });
      await joinSites(tx, act.person.id, [id]);
      await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title: `Site ${input.name.trim()} made`, siteId: id });
      return { code };
    });
  }

  async series(): Promise<SeriesDto[]> {
    const kept = new Map(
      (await rows<{ name: string; next: number }>(this.source, 'SELECT name, next FROM number_series')).map((s) => [s.name, s.next]),
    );
    return Object.entries(SERIES).map(([name, says]) => {
      const number = kept.get(name) ?? 1;
      return { name, says, number, next: seriesCode(name as SeriesName, number) };
    });
  }

  /** Moves a series on. It never goes back, since a number that was given stands on paper somewhere. */
  setSeries(act: Act, input: SetSeriesDto): Promise<void> {
    return this.commands.run(act, 'series', input, async (tx) => {
      const kept = await one<{ next: number }>(tx, 'SELECT next FROM number_series WHERE name = ? FOR UPDATE', [input.name]);
      if (kept && input.number < kept.next)
        throw badState(`${seriesCode(input.name, kept.next - 1)} was given already. Go on from ${kept.next} or higher`);
      await setNextNumber(tx, input.name, input.number);
      await this.activity.record(tx, act, {
        kind: 'setup',
        glyph: 'full',
        title: `${SERIES[input.name]} go on from ${seriesCode(input.name, input.number)}`,
      });
    });
  }
}

function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en-GB', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}
