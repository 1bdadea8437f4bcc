export { decimalText, dividedBy, micro, moneyText, priceText, times, type Micro } from './decimal.js';
