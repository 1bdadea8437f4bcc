import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { num, rows } from '../platform/index.js';

/** What holds for an item at a site, each choice by the nearest rule that makes it. Null: nobody has said. */
export interface BuyingRule {
  servicePercent: number | null;
  /** Whether that was said of this item or its class: what goods are worth counts no more then. */
  isServiceOwn: boolean;
  reviewDays: number | null;
  supplierId: number | null;
  likeItemId: number | null;
  likePercent: number | null;
  /** What is free or on its way is never to be more. */
  roomUnits: number | null;
  /** It is bought by the point to order at that stands at the item. */
  isFixed: boolean;
  /** It is bought no more. */
  isDropped: boolean;
}

interface RuleRow {
  itemId: number | null;
  class: string | null;
  siteId: number | null;
  servicePercent: string | null;
  reviewDays: number | null;
  supplierId: number | null;
  likeItemId: number | null;
  likePercent: number | null;
  roomUnits: number | null;
  isFixed: number;
  isDropped: number;
}

/** Reads what holds for items: an item's own rule before its class's before the company's, and of each the site's before all sites'. */
@Injectable()
export class BuyingRules {
  constructor(private readonly source: DataSource) {}

  async all(siteId: number): Promise<(itemId: number, className: string) => BuyingRule> {
    const found = await rows<RuleRow>(
      this.source,
      `SELECT item_id AS itemId, class, site_id AS siteId, service_percent AS servicePercent, review_days AS reviewDays, supplier_id AS supplierId, like_item_id AS likeItemId, like_percent AS likePercent, room_units AS roomUnits, is_fixed AS isFixed, is_dropped AS isDropped
       FROM buying_rule WHERE site_id IS NULL OR site_id = ? ORDER BY item_id IS NOT NULL DESC, class IS NOT NULL DESC, site_id IS NOT NULL DESC, id`,
      [siteId],
    );
    const byItem = grouped(found.filter((r) => r.itemId !== null));
    const wide = found.filter((r) => r.itemId === null);
    return (itemId, className) => {
      const near = [...(byItem.get(itemId) ?? []), ...wide.filter((r) => r.class === null || r.class === className)];
      const first = <K extends keyof RuleRow>(key: K) => near.find((r) => r[key] !== null)?.[key] ?? null;
      const service = near.find((r) => r.servicePercent !== null);
      return {
        servicePercent: service ? num(service.servicePercent) : null,
        isServiceOwn: service !== undefined && (service.itemId !== null || service.class !== null),
        reviewDays: first('reviewDays'),
        supplierId: first('supplierId'),
        likeItemId: first('likeItemId'),
        likePercent: first('likePercent'),
        roomUnits: first('roomUnits'),
        isFixed: near.some((r) => r.isFixed === 1),
        isDropped: near.some((r) => r.isDropped === 1),
      };
    };
  }
}

function grouped(list: readonly RuleRow[]): Map<number, RuleRow[]> {
  const all = new Map<number, RuleRow[]>();
  for (const r of list) all.set(r.itemId ?? 0, [...(all.get(r.itemId ?? 0) ?? []), r]);
  return all;
}
