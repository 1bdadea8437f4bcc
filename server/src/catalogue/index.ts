/** Items with their packs, codes, parts and pictures. */
export { CatalogueModule } from './catalogue.module.js';
export { keyOfCode } from './code-key.js';
export { CodebookQueries } from './codebook.queries.js';
export { keepFirstCost, refreshLacks } from './completeness.js';
export { ItemListQueries } from './item-list.queries.js';
export { ItemQueries } from './item.queries.js';
export { ExtraFieldDto, ItemRowDto, PackDto } from './items.dto.js';
export { ItemsService } from './items.service.js';
export { MOST_PICTURE_BYTES, pictureOf } from './pictures.service.js';
export { itemIds, packIds } from './shapes/lookup.js';
export { Drawings } from './drawings.service.js';
export { IS_UNMATCHED, UnmatchedCodes } from './unmatched-codes.service.js';
