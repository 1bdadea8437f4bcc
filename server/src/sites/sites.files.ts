import { Injectable } from '@nestjs/common';
import { listTable, Lists, Shapes, windows } from '../exchange/index.js';
import { placeFilter } from './place-filter.js';
import { PlacesQueries } from './places.queries.js';
import { placesShape, wallsShape, zonesShape } from './shapes/places.shape.js';
import { planShape } from './shapes/plan.shape.js';
import { sitesShape } from './shapes/sites.shape.js';

/** Files of sites and places, in and out. */
@Injectable()
export class SitesFiles {
  constructor(shapes: Shapes, lists: Lists, places: PlacesQueries) {
    shapes.register(sitesShape, planShape, zonesShape, wallsShape, placesShape);
    lists.register('places', (person, query) =>
      listTable(
        'places',
        windows((from, count) => places.page(person.siteIds, placeFilter(query), from, count)),
        [
          ['Place', (p) => p.code],
          ['Kind', (p) => p.kind],
          ['Site', (p) => p.site],
          ['Zone', (p) => p.zone],
          ['Open to picking', (p) => (p.pickable ? 'yes' : 'no')],
          ['Blocked', (p) => (p.blocked ? 'yes' : 'no')],
          ['Walking order', (p) => p.walkOrder],
          ['Items there', (p) => p.items],
        ],
      ),
    );
  }
}
