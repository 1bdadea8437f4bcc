import { Injectable } from '@nestjs/common';
import { readAnswer, type Check } from '@vectrum/core/inspection';
import { spell } from '@vectrum/core/quantity';
import type { InspectTask } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { ItemQueries } from '../catalogue/index.js';
import { notFound, num, one, type Page, pageOf, parsed, type Person, rows, type Tx, type Window } from '../platform/index.js';
import { firstPlace } from '../sites/index.js';
import type { InspectionCheckDto, InspectionDto, InspectionRowDto, InspectionVerdictDto } from './inspection.dto.js';
import { StandingToInspect } from './standing.queries.js';

const CAME = `(SELECT COALESCE(SUM(r.units), 0) FROM receipt r WHERE r.arrival_id = n.arrival_id AND r.item_id = n.item_id AND r.stock_condition = 'to-inspect' AND r.undone_at IS NULL)`;
const JUDGED = `(SELECT COALESCE(SUM(v.units), 0) FROM inspection_verdict v WHERE v.inspection_id = n.id AND v.undone_at IS NULL)`;
const FIELDS = `n.id, n.code, t.name AS site, n.site_id AS siteId, a.code AS arrival, s.name AS supplier, i.id AS itemId, i.sku, i.name, i.picture, ${CAME} AS came, ${JUDGED} AS judged, n.why, n.checks, n.opened_at AS openedAt, n.closed_at AS closedAt, n.passed`;
const FROM = `FROM inspection n JOIN site t ON t.id = n.site_id JOIN arrival a ON a.id = n.arrival_id LEFT JOIN supplier s ON s.id = a.supplier_id JOIN item i ON i.id = n.item_id`;

interface Row extends Omit<InspectionRowDto, 'words' | 'passed'> {
  id: number;
  siteId: number;
  itemId: number;
  came: string;
  judged: string;
  checks: unknown;
  passed: number | null;
}

/** Reads what waits to be looked at, and what was. */
@Injectable()
export class InspectionsQueries {
  constructor(
    private readonly source: DataSource,
    private readonly items: ItemQueries,
    private readonly standing: StandingToInspect,
  ) {}

  /** All that a phone needs to look at the goods of a site. */
  async task(tx: Tx, siteId: number): Promise<InspectTask> {
    return { siteId, quarantine: (await firstPlace(tx, siteId, 'quarantine')) ?? null, goods: await this.standing.goods(tx, siteId) };
  }

  /** Those that wait, the oldest first, then those that were judged, the newest first. */
  async list(person: Person, window: Window): Promise<Page<InspectionRowDto>> {
    const list = {
      select: FIELDS,
      from: `${FROM} WHERE n.site_id IN (?) AND ${CAME} > 0`,
      params: [[0, ...person.siteIds]],
      order: 'n.closed_at IS NOT NULL, IF(n.closed_at IS NULL, n.opened_at, NULL), n.closed_at DESC',
    };
    const { rows: found, total } = await pageOf<Row>(this.source, list, window);
    const packs = await this.items.packs(found.map((f) => f.itemId));
    return { rows: found.map((f) => rowOf(f, spell(waits(f), packs.get(f.itemId) ?? []))), total };
  }

  async sheet(person: Person, code: string): Promise<InspectionDto> {
    const found = await one<Row>(this.source, `SELECT ${FIELDS} ${FROM} WHERE n.code = ? AND n.site_id IN (?)`, [
      code,
      [0, ...person.siteIds],
    ]);
    if (!found) throw notFound(`Inspection ${code}`);
    const packs = (await this.items.packs([found.itemId])).get(found.itemId) ?? [];
    const goods = await this.standing.goods(this.source, found.siteId, found.itemId);
    return {
      ...rowOf(found, spell(waits(found), packs)),
      itemId: found.itemId,
      checks: await this.checks(this.source, found.id, parsed<Check[]>(found.checks)),
      waiting: goods
        .filter((g) => g.inspection === code)
        .map(({ lotId, lot, placeId, place, units }) => ({ lotId, lot, placeId, place, units, words: spell(units, packs) })),
      verdicts: (await this.verdicts(found.id)).map(({ units, ...v }) => ({ ...v, words: spell(units, packs) })),
    };
  }

  private async checks(tx: Pick<Tx, 'query'>, id: number, checks: readonly Check[]): Promise<InspectionCheckDto[]> {
    const answers = await rows<{ no: number; value: string; who: string }>(
      tx,
      'SELECT w.no, w.value, p.name AS who FROM inspection_answer w JOIN person p ON p.id = w.person_id WHERE w.inspection_id = ?',
      [id],
    );
    return checks.map((check) => {
      const answer = answers.find((a) => a.no === check.no);
      const reading = answer && readAnswer(check, answer.value);
      return {
        ...check,
        value: answer?.value ?? null,
        fulfilled: reading && 'ok' in reading ? reading.ok : null,
        who: answer?.who ?? null,
      };
    });
  }

  private async verdicts(id: number): Promise<(Omit<InspectionVerdictDto, 'words'> & { units: number })[]> {
    const found = await rows<Omit<InspectionVerdictDto, 'words' | 'undone'> & { units: number; undone: number | string }>(
      this.source,
      `SELECT v.at, p.name AS who, v.verdict, v.units, l.code AS lot, v.reason, v.return_code AS returnCode, v.undone_at IS NOT NULL AS undone
       FROM inspection_verdict v JOIN person p ON p.id = v.person_id LEFT JOIN lot l ON l.id = v.lot_id WHERE v.inspection_id = ? ORDER BY v.id`,
      [id],
    );
    return found.map((v) => ({ ...v, undone: num(v.undone) === 1 }));
  }
}

/** Units that still wait; all that came, once nothing does. */
const waits = (f: Pick<Row, 'came' | 'judged' | 'closedAt'>) => num(f.came) - (f.closedAt ? 0 : num(f.judged));

function rowOf(row: Row, words: string): InspectionRowDto {
  const { code, site, arrival, supplier, sku, name, picture, why, openedAt, closedAt, passed } = row;
  return {
    code,
    site,
    arrival,
    supplier,
    sku,
    name,
    picture,
    words,
    why,
    openedAt,
    closedAt,
    passed: passed === null ? null : passed === 1,
  };
}
