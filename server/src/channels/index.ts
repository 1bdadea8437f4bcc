/** Channels that the house sells on, with their listings. */
export { Channel, Listing } from './channel.entity.js';
export { ChannelsModule } from './channels.module.js';
export { ChannelsService } from './channels.service.js';
