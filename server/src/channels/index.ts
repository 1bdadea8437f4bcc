/** Channels that the house sells on, with their listings. */
export { ChannelsModule } from './channels.module.js';
export { ChannelsService } from './channels.service.js';
