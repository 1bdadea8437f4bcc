/** Channels that the house sells on, with their listings. */
export { PRICE } from './channels.dto.js';
export { ChannelsModule } from './channels.module.js';
export { type BeliefRow, ChannelsService } from './channels.service.js';
export { ChannelStock, type DueListing } from './channel-stock.js';
