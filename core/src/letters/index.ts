export * from './fill.js';
export * from './letters.js';
