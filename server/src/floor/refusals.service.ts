import { Injectable } from '@nestjs/common';
import { ActivityService } from '../activity/index.js';
import { UnmatchedCodes } from '../catalogue/index.js';
import { mustBeAt } from '../platform/index.js';
import { FloorCommands } from './floor-commands.js';
import { RefusedCommandDto } from './floor.dto.js';

const BAND_GLYPHS = { 'not-this': 'fb-wrong', 'too-many': 'fb-many', unknown: 'fb-unknown' } as const;
const BAND_WORDS = { 'not-this': 'Not this one', 'too-many': 'Too many', unknown: 'Unknown code' } as const;

/** Puts a refused scan on the tape; nothing else changes. */
@Injectable()
export class Refusals {
  constructor(
    commands: FloorCommands,
    private readonly activity: ActivityService,
    codes: UnmatchedCodes,
  ) {
    commands.register({
      kind: 'refused',
      right: 'signed-in',
      dto: RefusedCommandDto,
      work: async (tx, act, command) => {
        if (command.siteId !== undefined) mustBeAt(act.person, command.siteId);
        const siteId = command.siteId ?? act.person.siteIds[0] ?? null;
        if (command.band === 'unknown' && siteId !== null)
          await codes.note(tx, act, { code: command.code, how: command.how, siteId, document: command.document ?? null });
        return {
          activityId: await this.activity.record(tx, act, {
            kind: 'refusal',
            glyph: BAND_GLYPHS[command.band],
            title: `${BAND_WORDS[command.band]}: ${command.title}`,
            detail: command.detail,
            document: command.document ?? null,
            siteId,
            how: command.how,
          }),
        };
      },
      about: (_, command) => Promise.resolve({ what: command.title, siteId: command.siteId ?? null, document: command.document ?? null }),
    });
  }
}
