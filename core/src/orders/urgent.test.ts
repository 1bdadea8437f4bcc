import { isUrgent } from './urgent.js';

it.each([
  [0, 'standard', false],
  [1, 'standard', true],
  [-1, 'standard', false],
  [0, 'express', true],
  [-1, 'express', true],
  [0, 'collected', false],
])('priority %s at %s speed is urgent: %s', (priority, speed, urgent) => expect(isUrgent({ priority, speed })).toBe(urgent));
