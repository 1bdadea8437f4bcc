/** How orders come in from channels, and what they are told. */
export { CHANNEL_ACCESS, type ChannelAccess } from './connector.js';
export { ConnectorsModule } from './connectors.module.js';
export { OrderFolder } from './folder/order-folder.js';
export { IntakeService } from './intake.service.js';
export { ChannelPolling } from './polling.js';
export { StockPushing } from './stock-pushing.js';
