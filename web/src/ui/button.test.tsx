import { renderToStaticMarkup as render } from 'react-dom/server';
import { MemoryRouter } from 'react-router';
import { Button, ButtonLink, RowLink, TextButton } from './button';
import { classes } from './classes';

describe('acts', () => {
  it('have the highlighter only where they are the next thing to do', () => {
    expect(render(<Button>Keep</Button>)).toBe('<button class="act">Keep</button>');
    expect(render(<Button next>Keep</Button>)).toBe('<button class="act act-next">Keep</button>');
    expect(render(<Button next={false}>Keep</Button>)).not.toContain('act-next');
  });

  it('keep what the page says of them: kind, state, place', () => {
    const html = render(
      <TextButton type="button" disabled className="ml-3" aria-label="Take it out">
        out
      </TextButton>,
    );
    for (const part of ['type="button"', 'disabled', 'class="act-link ml-3"', 'aria-label="Take it out"']) expect(html).toContain(part);
  });

  it('of rows are the next thing in the first row, and words in the others', () => {
    const row = (first: boolean) =>
      render(
        <MemoryRouter>
          <RowLink to="/bench/S-1" first={first}>
            Pack it
          </RowLink>
        </MemoryRouter>,
      );
    expect(row(true)).toContain('class="act act-next"');
    expect(row(false)).toContain('class="act-link"');
    expect(row(false)).toContain('href="/bench/S-1"');
  });

  it('lead to pages as links, which open in another tab when they are asked to', () => {
    const html = render(
      <MemoryRouter>
        <ButtonLink to="/orders">Orders</ButtonLink>
      </MemoryRouter>,
    );
    expect(html).toMatch(/^<a [^>]*href="\/orders"/);
  });
});

describe('class names', () => {
  it('leave out what does not apply', () => {
    expect(classes('act', false, undefined, null, '', 'ml-3')).toBe('act ml-3');
    expect(classes()).toBe('');
  });
});
