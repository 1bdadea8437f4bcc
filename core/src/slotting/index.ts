export { type SlotAdvice, slotAdvice, type SlotMove, type ToSlot } from './slotting.js';
