import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { LOGGER, one, parsed, Retention, siteDay } from '../platform/index.js';
import { keepSetting, SettingsService } from '../settings/index.js';

const LOOKS_MS = 600_000;
/** Nobody works then, as a rule, and the day before is over. */
const FROM_HOUR = 2;
const DONE = 'nightlyDone';

/** What is done once a night, by the clock of the house's first site: clearing what has been kept for long enough. */
@Injectable()
export class Nightly implements OnApplicationShutdown {
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
    private readonly retention: Retention,
    @Inject(LOGGER) private readonly log: Logger,
  ) {}

  start(): void {
    const look = () => void this.look().catch((err: unknown) => this.log.warn({ err }, 'the nightly work could not be done'));
    this.timer = setInterval(look, LOOKS_MS);
    look();
  }

  /** Does the night's work where it was not done yet; whichever server looks first. True where it did it. */
  async look(now = new Date()): Promise<boolean> {
    const { today, timeZone } = await siteDay(this.source, null, now);
    const hour = Number(new Intl.DateTimeFormat('en-GB', { hour: '2-digit', hourCycle: 'h23', timeZone }).format(now));
    const done = await one<{ value: unknown }>(this.source, 'SELECT value FROM setting WHERE name = ?', [DONE]);
    if (hour < FROM_HOUR || (done && parsed<{ is: string }>(done.value).is >= today)) return false;
    const cleared = await this.retention.run((choice) => this.settings.get(this.source, choice));
    await keepSetting(this.source, DONE, { is: today });
    this.log.info({ cleared }, 'the nightly work is done');
    return true;
  }

  onApplicationShutdown(): void {
    clearInterval(this.timer);
  }
}
