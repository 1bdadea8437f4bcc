import { ProblemError } from './client';
import { ActKeys } from './use-act';

describe('the key of an act', () => {
  const lost = new TypeError('Failed to fetch');
  const refused = new ProblemError(409, 'state', 'It is placed already');
  const broken = new ProblemError(502, 'unknown', 'No server behind it');

  it('is the same when it is pressed again after its answer was lost', () => {
    const keys = new ActKeys();
    const first = keys.take();
    keys.failed(first, lost);
    const second = keys.take();
    expect(second).toBe(first);
    keys.failed(second, broken);
    expect(keys.take()).toBe(first);
  });

  it('is a new one once the server has answered, whatever it said', () => {
    const keys = new ActKeys();
    const first = keys.take();
    keys.failed(first, refused);
    expect(keys.take()).not.toBe(first);
  });

  it('belongs to one act alone while several are on their way', () => {
    const keys = new ActKeys();
    const [first, second] = [keys.take(), keys.take()];
    expect(second).not.toBe(first);
    keys.failed(first, lost);
    expect(keys.take()).toBe(first);
    expect(keys.take()).not.toBe(first);
  });
});
