import type { Dto } from '../../../api/client';

export interface PackValues {
  name: string;
  plural: string;
  factor: string;
  weightG: string;
  lengthMm: string;
  widthMm: string;
  heightMm: string;
  barcodes: string;
}
export interface SiteValues {
  siteId: number;
  site: string;
  home: string;
  cost: string;
  reorderPoint: string;
  orderUpTo: string;
  refillBelow: string;
  refillUpTo: string;
}
export interface ItemValues {
  sku: string;
  name: string;
  className: string;
  picture: string;
  kind: 'single' | 'kit' | 'assembly';
  tracking: 'none' | 'lot' | 'lot-expiry' | 'serial';
  rotation: 'fifo' | 'fefo';
  storage: 'any' | 'cold' | 'restricted';
  minLifeDays: string;
  taxCode: string;
  cost: string;
  labour: string;
  neverHoldsUp: boolean;
  scanEach: boolean;
  serialAtPacking: boolean;
  keepUpright: boolean;
  fragile: boolean;
  tags: string;
  packs: PackValues[];
  sites: SiteValues[];
  parts: { sku: string; units: string }[];
  extra: Record<string, string>;
}

const text = (n: number | null | undefined) => (n === null || n === undefined ? '' : String(n));
const number = (t: string) => (t.trim() === '' ? null : Number(t));
const money = (t: string | null | undefined) => (t ? t.replace(/\.?0+$/, '') : '');
export const blankPack: PackValues = {
  name: '',
  plural: '',
  factor: '',
  weightG: '',
  lengthMm: '',
  widthMm: '',
  heightMm: '',
  barcodes: '',
};

/** A form's values for a new item at some sites. */
export function freshValues(sites: readonly Dto['SiteDto'][]): ItemValues {
  return {
    sku: '',
    name: '',
    className: '',
    picture: 'box',
    kind: 'single',
    tracking: 'none',
    rotation: 'fifo',
    storage: 'any',
    minLifeDays: '',
    taxCode: '',
    cost: '',
    labour: '',
    neverHoldsUp: false,
    scanEach: false,
    serialAtPacking: false,
    keepUpright: false,
    fragile: false,
    tags: '',
    packs: [{ ...blankPack, name: 'piece', plural: 'pieces', factor: '1' }],
    sites: sites.map((s) => ({
      siteId: s.id,
      site: s.name,
      home: '',
      cost: '',
      reorderPoint: '',
      orderUpTo: '',
      refillBelow: '',
      refillUpTo: '',
    })),
    parts: [],
    extra: {},
  };
}

/** An item as a form's values. */
export function valuesOf(item: Dto['ItemDto']): ItemValues {
  return {
    sku: item.sku,
    name: item.name,
    className: item.className,
    picture: item.picture,
    kind: item.kind as ItemValues['kind'],
    tracking: item.tracking as ItemValues['tracking'],
    rotation: item.rotation as ItemValues['rotation'],
    storage: item.storage as ItemValues['storage'],
    minLifeDays: item.minLifeDays === null ? '' : String(item.minLifeDays),
    taxCode: item.taxCode ?? '',
    cost: money(item.cost),
    labour: money(item.labour),
    neverHoldsUp: item.neverHoldsUp,
    scanEach: item.scanEach,
    serialAtPacking: item.serialAtPacking,
    keepUpright: item.keepUpright,
    fragile: item.fragile,
    tags: item.tags.join(', '),
    extra: { ...item.extra },
    packs: [...item.packs].reverse().map((p) => ({
      name: p.name,
      plural: p.plural,
      factor: String(p.factor),
      weightG: text(p.weightG),
      lengthMm: text(p.lengthMm),
      widthMm: text(p.widthMm),
      heightMm: text(p.heightMm),
      barcodes: p.barcodes.join(' '),
    })),
    sites: item.sites.map((s) => ({
      siteId: s.siteId,
      site: s.site,
      home: s.home ?? '',
      cost: money(s.cost),
      reorderPoint: text(s.reorderPoint),
      orderUpTo: text(s.orderUpTo),
      refillBelow: text(s.refillBelow),
      refillUpTo: text(s.refillUpTo),
    })),
    parts: item.parts.map((p) => ({ sku: p.sku, units: String(p.units) })),
  };
}

/** A form's values as a request; costs only from those who may see them. */
export function bodyOf(v: ItemValues, seesCosts: boolean): Dto['EditItemDto'] {
  return {
    sku: v.sku,
    name: v.name,
    className: v.className,
    picture: v.picture,
    kind: v.kind,
    tracking: v.tracking,
    rotation: v.rotation,
    storage: v.storage,
    minLifeDays: v.tracking === 'lot-expiry' && v.minLifeDays.trim() !== '' ? Number(v.minLifeDays) : null,
    taxCode: v.taxCode || null,
    neverHoldsUp: v.neverHoldsUp,
    scanEach: v.scanEach,
    serialAtPacking: v.serialAtPacking,
    keepUpright: v.keepUpright,
    fragile: v.fragile,
    ...(seesCosts ? { cost: v.cost.trim() || null, labour: v.kind === 'assembly' ? v.labour.trim() || null : null } : {}),
    tags: v.tags
      .split(',')
      .map((t) => t.trim())
      .filter(Boolean),
    extra: Object.fromEntries(Object.entries(v.extra).filter(([, value]) => value.trim() !== '')),
    sites: v.sites.map((s) => ({
      siteId: s.siteId,
      home: s.home.trim() || null,
      ...(seesCosts ? { cost: s.cost.trim() || null } : {}),
      reorderPoint: number(s.reorderPoint),
      orderUpTo: number(s.orderUpTo),
      refillBelow: number(s.refillBelow),
      refillUpTo: number(s.refillUpTo),
    })),
    parts: v.kind === 'single' ? [] : v.parts.filter((p) => p.sku.trim()).map((p) => ({ sku: p.sku.trim(), units: Number(p.units) })),
    packs: v.packs.map((p) => ({
      name: p.name,
      plural: p.plural,
      factor: Number(p.factor),
      weightG: number(p.weightG),
      lengthMm: number(p.lengthMm),
      widthMm: number(p.widthMm),
      heightMm: number(p.heightMm),
      barcodes: p.barcodes.split(/\s+/).filter(Boolean),
    })),
  };
}
