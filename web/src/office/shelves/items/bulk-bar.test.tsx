import { renderToStaticMarkup as render } from 'react-dom/server';
import type { Dto } from '../../../api/client';
import { BulkBar } from './bulk-bar';
import { CellEdit } from './cell-edit';

const sites = [
  { id: 1, name: 'Millrace' },
  { id: 2, name: 'Quay' },
] as Dto['SiteDto'][];
const bar = (more: Partial<Parameters<typeof BulkBar>[0]> = {}) =>
  render(
    <BulkBar
      count={3}
      sites={sites}
      seesCosts
      busy={false}
      made={undefined}
      onMakeBarcodes={() => undefined}
      onApply={() => undefined}
      onClear={() => undefined}
      print="/setup/labels/print?subject=item&codes=A,B"
      {...more}
    />,
  );

describe('changing many items at once', () => {
  it('says how many are meant, on the act itself too', () => {
    expect(bar()).toContain('3 items chosen');
    expect(bar()).toContain('Change all 3');
    expect(bar({ count: 1 })).toContain('1 item chosen');
  });

  it('offers no cost to those who may not see one', () => {
    expect(bar()).toContain('value="cost"');
    expect(bar({ seesCosts: false })).not.toContain('value="cost"');
  });

  it('cannot be pressed twice', () => {
    const act = (html: string) => /<button[^>]*class="act"[^>]*>/.exec(html)?.[0] ?? '';
    expect(act(bar({ busy: true }))).toContain('disabled=""');
    expect(act(bar())).toMatch(/^<button(?!.*disabled)/);
  });

  it('says how many barcodes were made, once they are', () => {
    expect(bar()).toContain('Give them barcodes');
    expect(bar({ made: { made: 2, left: 1, activityId: 9 } })).toContain('2 barcodes made');
    expect(bar({ made: { made: 0, left: 3, activityId: null } })).toContain('All of them have a barcode');
  });

  it('leads to the labels of just these', () => {
    expect(bar()).toContain('href="/setup/labels/print?subject=item&amp;codes=A,B"');
  });
});

describe('a cell being changed', () => {
  it('begins with what is in it, named by its column and item', () => {
    const html = render(<CellEdit value="C-07-2" label="Home of Jar 454 g" onKeep={() => undefined} onLeave={() => undefined} />);
    expect(html).toContain('value="C-07-2"');
    expect(html).toContain('aria-label="Home of Jar 454 g"');
  });

  it('takes scans, since codes are what is often wanted in it', () => {
    expect(render(<CellEdit value="" label="x" onKeep={() => undefined} onLeave={() => undefined} />)).toContain('data-scan');
  });
});
