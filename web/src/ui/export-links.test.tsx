import { renderToStaticMarkup as render } from 'react-dom/server';
import { ExportLinks } from './export-links';

const links = (html: string) => [...html.matchAll(/href="([^"]+)"/g)].map((m) => m[1]?.replace(/&amp;/g, '&'));

describe('a list as a file', () => {
  it('is offered in both kinds', () => {
    expect(links(render(<ExportLinks list="places" />))).toEqual(['/api/exports/lists/places.csv', '/api/exports/lists/places.xlsx']);
  });

  it('has the filter that the list is shown with, and nothing for filters not set', () => {
    const html = render(<ExportLinks list="items" query={{ search: 'jar & lid', state: undefined, tag: '', site: '1' }} />);
    expect(links(html)[0]).toBe('/api/exports/lists/items.csv?search=jar+%26+lid&site=1');
  });
});
