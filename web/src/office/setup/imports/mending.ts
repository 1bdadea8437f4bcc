import type { Dto } from '../../../api/client';

export type Group = Dto['ImportFaultGroupDto'];
/** Groups with the same thing wrong in the same field. */
export interface Block {
  field: string;
  label: string;
  reason: string;
  rows: number;
  groups: Group[];
}

export const keyOf = (g: Pick<Group, 'field' | 'reason' | 'value'>): string => JSON.stringify([g.field, g.reason, g.value]);
export const allKey = (b: Pick<Block, 'field' | 'reason'>): string => JSON.stringify([b.field, b.reason]);

/** What is wrong, taken together by field and reason, the most rows first. */
export function blocksOf(groups: readonly Group[]): Block[] {
  const blocks = new Map<string, Block>();
  for (const g of groups) {
    const key = allKey(g);
    const block = blocks.get(key) ?? { field: g.field, label: g.label, reason: g.reason, rows: 0, groups: [] };
    block.rows += g.rows;
    block.groups.push(g);
    blocks.set(key, block);
  }
  return [...blocks.values()].sort((a, b) => b.rows - a.rows);
}

/**
 * What was said on the page, as the server is told it: a word for all rows that have it, one cell where only one row has it and its
 * field is no choice of few words, or one value for all that have a fault.
 */
export function changesOf(
  blocks: readonly Block[],
  said: ReadonlyMap<string, string>,
  hasChoices: (field: string) => boolean,
): Dto['ImportMendDto'][] {
  return blocks.flatMap((b) => {
    const all = said.get(allKey(b));
    const each = b.groups.flatMap((g): Dto['ImportMendDto'][] => {
      const becomes = said.get(keyOf(g));
      if (becomes === undefined) return [];
      return [g.rows === 1 && !hasChoices(g.field) ? { field: g.field, row: g.row, becomes } : { field: g.field, value: g.value, becomes }];
    });
    return all === undefined ? each : [{ field: b.field, reason: b.reason, becomes: all }, ...each];
  });
}
