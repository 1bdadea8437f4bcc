/** Goods that go from anywhere to anywhere, are used up, or change their condition. */
export { MovingModule } from './moving.module.js';
