/** How orders come in from channels, and what they are told. */
export { ConnectorsModule } from './connectors.module.js';
export { IntakeService } from './intake.service.js';
export { ShopPolling } from './shop-polling.js';
