import fc from 'fast-check';
import { fill, LETTERS, templateFault } from './index.js';

describe('a letter', () => {
  it('has its values in place, and leaves paragraphs out that say nothing', () => {
    const text = fill('Dear {customer},\n\nIn it:\n{contents}\n\nNot in it:\n{follows}\n\n{complete}\n\nYours', {
      customer: 'Wick Hill Farm',
      contents: '2 jars',
      follows: '',
      complete: 'All is sent.',
    });
    expect(text).toBe('Dear Wick Hill Farm,\n\nIn it:\n2 jars\n\nAll is sent.\n\nYours');
  });

  it('takes values as they are, whatever signs are in them', () => {
    expect(fill('To {customer}', { customer: '{order} $& $1 <b>' })).toBe('To {order} $& $1 <b>');
    fc.assert(fc.property(fc.string().filter((s) => s.trim() === s && s !== ''), (value) => expect(fill('a {x} b', { x: value })).toBe(`a ${value} b`))); // prettier-ignore
  });

  it('is refused where it names what is not known, or leaves a brace open', () => {
    expect(templateFault('Dear {customer}', ['customer'])).toBeNull();
    expect(templateFault('Dear {name}', ['customer'])).toContain('{name} is not known here. There are {customer}');
    for (const bad of ['Dear {customer', 'Dear }', '{}', '{ customer }', '{customer.name}']) expect(templateFault(bad, ['customer'])).not.toBeNull(); // prettier-ignore
  });

  it('is right as it comes, in each of its kinds', () => {
    for (const kind of Object.values(LETTERS)) {
      const names = Object.keys(kind.values);
      expect([templateFault(kind.subject, names), templateFault(kind.body, names)]).toEqual([null, null]);
      const example = Object.fromEntries(Object.entries(kind.values).map(([name, v]) => [name, v.example]));
      expect(fill(kind.body, example)).not.toMatch(/[{}]/);
    }
  });
});
