export { decimalText, dividedBy, micro, moneyText, priceText, times, type Micro } from './decimal.js';
export { fractionOf, fractionText, isNought, minus, plus, product, ratio, scaled, whole, ZERO, type Fraction } from './fraction.js';
