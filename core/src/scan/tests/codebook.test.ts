import { codebookOf } from '../index.js';
import { book, places } from './book.js';

describe('the codes of a site', () => {
  const jar = book.items['1']!;
  const made = codebookOf([{ ...jar, codes: [{ code: '19506000134359', packId: 12 }] }], [places.dock, places.tote]);

  it('mean a pack of an item, and its SKU one of the smallest', () => {
    expect(made.codes).toEqual({ '19506000134359': { itemId: 1, packId: 12 }, JAR: { itemId: 1, packId: 11 } });
    expect(made.items).toEqual({ 1: jar });
  });

  it('name places whichever way they are written', () => {
    expect(codebookOf([], [{ ...places.dock, code: 'Dock-1' }]).places['DOCK-1']).toMatchObject({ id: 100 });
    expect(Object.keys(made.places)).toEqual(['DOCK-1', 'T-01']);
  });
});
