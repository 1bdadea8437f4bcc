import { Injectable } from '@nestjs/common';
import { Folders, listTable, Lists, type OutCell, Shapes, windows } from '../exchange/index.js';
import { itemFilter } from './item-filter.js';
import { ItemListQueries } from './item-list.queries.js';
import type { ItemRowDto } from './items.dto.js';
import { PictureLinks } from './picture-links.service.js';
import { PicturesService } from './pictures.service.js';
import { barcodesShape } from './shapes/barcodes.shape.js';
import { itemsShape } from './shapes/items.shape.js';
import { packsShape } from './shapes/packs.shape.js';
import { partsShape } from './shapes/parts.shape.js';
import { policiesShape } from './shapes/policies.shape.js';

/** The columns that the list of items can show, by the name the list knows them by. */
const ITEM_COLUMNS: Readonly<Record<string, readonly [string, (r: ItemRowDto) => OutCell | null | undefined]>> = {
  name: ['Item', (r) => r.name],
  sku: ['SKU', (r) => r.sku],
  className: ['Class', (r) => r.className],
  tags: ['Tags', (r) => r.tags.join('; ')],
  suppliers: ['Suppliers', (r) => r.suppliers],
  home: ['Home', (r) => r.home],
  unit: ['Unit', (r) => r.unit],
  tracking: ['Tracked by', (r) => r.tracking],
  onHand: ['On hand', (r) => r.onHand],
  held: ['Held', (r) => r.held],
  reserved: ['Reserved', (r) => r.reserved],
  available: ['Available', (r) => r.available],
  incoming: ['On order', (r) => r.incoming],
  cost: ['Cost, typed', (r) => (r.cost == null ? '' : Number(r.cost))],
  bookedCost: ['Cost, booked', (r) => (r.bookedCost == null ? '' : Number(r.bookedCost))],
  lacks: ['Lacks', (r) => r.lacks.join(', ')],
};

/** Before the name of an own field, as the list names its column. */
const OWN = 'own:';
const ownColumn = (field: string): (typeof ITEM_COLUMNS)[string] => [field, (r) => r.extra[field]];

const COSTS: ReadonlySet<string> = new Set(['cost', 'bookedCost']);

async function* picturesNamed(pictures: PicturesService) {
  for await (const { sku, bytes } of pictures.all()) yield { name: `${sku}.webp`, bytes };
}

/** Files of items, in and out. */
@Injectable()
export class CatalogueFiles {
  constructor(shapes: Shapes, lists: Lists, folders: Folders, items: ItemListQueries, pictures: PicturesService, links: PictureLinks) {
    shapes.register(itemsShape(links), packsShape, barcodesShape, partsShape, policiesShape);
    folders.register({ name: 'pictures', right: 'items', files: () => picturesNamed(pictures) });
    lists.register(
      'items',
      (person, query) => {
        const asked = (query['columns'] ?? '')
          .split(',')
          .filter((c) => c.startsWith(OWN) || (Object.hasOwn(ITEM_COLUMNS, c) && (!COSTS.has(c) || person.seesCosts)));
        const shown = asked.length > 0 ? asked : Object.keys(ITEM_COLUMNS).filter((c) => !COSTS.has(c) || person.seesCosts);
        const list = windows((from, count) => items.page(person, itemFilter(query), query['sort'], from, count));
        return listTable(
          'items',
          list,
          shown.flatMap((c) => (c.startsWith(OWN) ? [ownColumn(c.slice(OWN.length))] : ITEM_COLUMNS[c] ? [ITEM_COLUMNS[c]] : [])),
        );
      },
      undefined,
      { daily: 'house' },
    );
  }
}
