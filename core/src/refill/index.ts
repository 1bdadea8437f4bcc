export { refillsOf, type Refill, type RefillItem, type Wanting } from './refills.js';
