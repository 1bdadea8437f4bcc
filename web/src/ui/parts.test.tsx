import { JAR } from '../testing/goods';
import { renderToStaticMarkup as render } from 'react-dom/server';
import { ProblemError } from '../api/client';
import { BinLabel } from '../floor/bin-label';
import { FeedbackBand } from '../flow/band';
import { QuantityPad } from '../flow/quantity-pad';
import { ReceivedStrip } from '../office/inbound/received-strip';
import { Field } from './field';
import { Glyph, orderGlyph, Pips, progressGlyph } from './glyph';
import { Empty, ProblemNote, Skeleton } from './states';
import { WhyNumber, WhySum } from './why';

const count = (html: string, text: string) => html.split(text).length - 1;

describe('glyphs', () => {
  it.each([
    [0, 10, 'empty'],
    [1, 10, 'quarter'],
    [5, 10, 'half'],
    [8, 10, 'most'],
    [10, 10, 'full'],
    [11, 10, 'over'],
    [-1, 10, 'empty'],
  ])('%i of %i is %s', (done, of, glyph) => {
    expect(progressGlyph(done, of)).toBe(glyph);
  });

  it('fill as an order goes on, and stand slotted when it is stuck', () => {
    expect(['open', 'picking', 'picked', 'packed', 'shipped'].map((s) => orderGlyph(s))).toEqual([
      'empty',
      'quarter',
      'half',
      'most',
      'full',
    ]);
    expect(orderGlyph('open', true)).toBe('blocked');
    expect(orderGlyph('unheard-of')).toBe('empty');
  });

  it('are read out only where they stand for words', () => {
    expect(render(<Glyph name="blocked" says />)).toContain('aria-label="blocked"');
    expect(render(<Glyph name="blocked" />)).toContain('aria-hidden="true"');
    expect(render(<Glyph name="full" says="all in" />)).toContain('aria-label="all in"');
  });

  it('in a row are one sentence, and no more than eight', () => {
    const html = render(<Pips lines={['ready', 'part', 'none', 'unknown', 'gone', 'ready', 'ready', 'ready', 'ready', 'none']} />);
    expect(html).toContain('6 of 10 lines in stock');
    expect(count(html, 'class="g ')).toBe(8);
    expect(html).toContain('+');
    expect(html).toContain('g-blocked');
  });
});

describe('the received strip', () => {
  it('has a cell for each pack, filled as they come', () => {
    const html = render(<ReceivedStrip ordered={480} received={240} factor={48} />);
    expect(count(html, '<i')).toBe(10);
    expect(count(html, 'class="came"')).toBe(5);
    expect(html).toContain('240 of 480 received');
  });
  it('shows part of a pack, and what came beyond the order', () => {
    expect(count(render(<ReceivedStrip ordered={480} received={60} factor={48} />), 'class="part"')).toBe(1);
    expect(count(render(<ReceivedStrip ordered={480} received={560} factor={48} />), 'class="over"')).toBe(2);
  });
  it('draws no more cells than can be told apart', () => {
    expect(count(render(<ReceivedStrip ordered={4_000} received={0} factor={1} />), '<i')).toBe(40);
  });
});

describe('the band', () => {
  it('says its word, what the code is and what to do, as an alert', () => {
    const html = render(<FeedbackBand feedback={{ band: 'not-this', title: 'Jar 227 g', detail: 'Belongs in C-09-1' }} />);
    expect(html).toContain('role="alert"');
    expect(html).toContain('Not this one');
    expect(html).toContain('Jar 227 g');
    expect(html).toContain('Belongs in C-09-1');
  });
  it.each([
    ['too-many', 'Too many', 'g-fb-many'],
    ['unknown', 'Unknown code', 'g-fb-unknown'],
    ['accepted', '2 trays', 'g-fb-ok'],
  ] as const)('%s says "%s" with a shape of its own', (band, word, glyph) => {
    const html = render(<FeedbackBand feedback={{ band, title: '2 trays', detail: 'x' }} />);
    expect(html).toContain(word);
    expect(html).toContain(glyph);
  });
  it('is not there without a scan', () => {
    expect(render(<FeedbackBand feedback={null} />)).toBe('');
  });
});

describe('the sum behind a number', () => {
  const terms = [
    { sign: '', term: 'On hand', units: 1412, documents: ['P-1187', 'OPENING'] },
    { sign: '=', term: 'Available', units: -3, documents: [] },
  ];
  it('shows terms, figures and documents', () => {
    const html = render(<WhySum terms={terms} />);
    expect(html).toContain('1,412');
    expect(html).toContain('P-1187');
    expect(html).toContain('class="tot"');
    expect(html).toContain('−3');
  });
  it('shows that it is coming', () => {
    expect(render(<WhySum terms={undefined} />)).toContain('skel');
  });
  it('says whether it is open', () => {
    const button = (open: boolean) =>
      render(
        <WhyNumber open={open} onToggle={() => undefined} label="Why">
          7
        </WhyNumber>,
      );
    expect(button(true)).toContain('aria-expanded="true"');
    expect(button(false)).toContain('aria-expanded="false"');
  });
});

describe('the quantity pad', () => {
  const item = JAR;
  it('has a tab for each pack with its own count, and the next pack on its last key', () => {
    const html = render(<QuantityPad item={item} counts={{ 2: 3 }} active={2} onCount={() => undefined} onActive={() => undefined} />);
    expect(count(html, 'role="tab"')).toBe(3);
    expect(html).toContain('of 1,536');
    expect(html).toMatch(/aria-selected="true"[^>]*><span>Tray<em>of 48<\/em><\/span><b>3<\/b>/);
    expect(html).toContain('Jars <span');
  });
  it('has no next pack where there is only one', () => {
    const html = render(
      <QuantityPad
        item={{ ...item, packs: item.packs.slice(2) }}
        counts={{}}
        active={1}
        onCount={() => undefined}
        onActive={() => undefined}
      />,
    );
    expect(html).not.toContain('g-go');
  });
});

describe('the bin label', () => {
  it('shows aisle, bay and level apart, and is read as one', () => {
    const html = render(<BinLabel code="C-07-2" way="12 m on" />);
    expect(html).toContain('Bin C-07-2: aisle C, bay 07, level 2');
    expect(count(html, '<b>')).toBe(3);
  });
  it('shows other places by their name', () => {
    expect(count(render(<BinLabel code="TABLE-1" way="scan it" />), '<b>')).toBe(1);
  });
});

describe('states', () => {
  it('say what happened and offer a way on', () => {
    const known = render(<ProblemNote problem={new ProblemError(409, 'state', 'P-1 is placed already')} onRetry={() => undefined} />);
    expect(known).toContain('P-1 is placed already');
    expect(known).toContain('Try again');
    expect(render(<ProblemNote problem={new TypeError('fetch failed')} />)).toContain('The server does not answer');
    expect(render(<ProblemNote problem={null} />)).toBe('');
  });
  it('say what to do next when there is nothing, and that something is coming', () => {
    expect(render(<Empty title="No orders here">Show all.</Empty>)).toContain('Show all.');
    expect(render(<Skeleton rows={3} />)).toContain('aria-label="Loading"');
  });
  it('put a field’s fault beneath it', () => {
    const html = render(
      <Field label="SKU" fault="JAR is taken">
        <input />
      </Field>,
    );
    expect(html).toContain('role="alert"');
    expect(html).toContain('JAR is taken');
    expect(
      render(
        <Field label="SKU">
          <input />
        </Field>,
      ),
    ).not.toContain('alert');
  });
});
