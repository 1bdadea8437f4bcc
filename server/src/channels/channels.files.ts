import { Injectable } from '@nestjs/common';
import { listTable, Lists, Shapes } from '../exchange/index.js';
import { channelSitesShape, channelsShape, listingsShape } from './channels.shape.js';
import { ChannelsService } from './channels.service.js';

/** Files of channels and listings, in and out. */
@Injectable()
export class ChannelsFiles {
  constructor(shapes: Shapes, lists: Lists, channels: ChannelsService) {
    shapes.register(channelsShape, channelSitesShape, listingsShape);
    lists.register(
      'channels',
      async (person) =>
        listTable('channels', await channels.list(person), [
          ['Channel', (c) => c.code],
          ['Name', (c) => c.name],
          ['Kind', (c) => c.kind],
          ['Site', (c) => c.site],
          ['Listings', (c) => c.listings],
        ]),
      'set-up',
    );
  }
}
