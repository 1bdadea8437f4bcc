export { solve, type Solved } from './solve.js';
