export * from './travel.js';
