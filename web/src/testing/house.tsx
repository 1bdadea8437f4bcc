import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, type RenderResult } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';

// What one test had half-written is not there for the next.
afterEach(() => window.sessionStorage.clear());

/** What was sent, as JSON where it is that. */
function read(text: string): unknown {
  try {
    return text === '' ? null : JSON.parse(text);
  } catch {
    return text;
  }
}

export interface Asked {
  method: string;
  path: string;
  headers: Headers;
  body: unknown;
}
type Answer = { status?: number; body?: unknown } | 'lost';
type Route = (asked: Asked) => Answer | Promise<Answer>;

/** A server that answers as a test says, and remembers what it was asked. */
export class FakeServer {
  readonly asked: Asked[] = [];
  private readonly routes = new Map<string, Route>();

  constructor() {
    (globalThis as { answer?: (request: Request) => Promise<Response> }).answer = async (request) => {
      const path = new URL(request.url).pathname;
      const text = request.method === 'GET' ? '' : await request.text();
      const asked: Asked = { method: request.method, path, headers: request.headers, body: read(text) };
      this.asked.push(asked);
      const route = this.routes.get(`${request.method} ${path}`);
      if (!route) throw new Error(`Nobody answers ${request.method} ${path}`);
      const answer = await route(asked);
      if (answer === 'lost') throw new TypeError('Failed to fetch');
      const { status = 200, body = {} } = answer;
      return new Response(status === 204 ? null : JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
    };
  }

  on(route: string, answer: Answer | Route): this {
    this.routes.set(route, typeof answer === 'function' ? answer : () => answer);
    return this;
  }

  count = (route: string): number => this.asked.filter((a) => `${a.method} ${a.path}` === route).length;
}

type InHouse = Pick<RenderResult, 'unmount' | 'container'> & { client: QueryClient; again: (next: ReactNode) => void };

/** A part of the interface in the house around it: router and queries, which are not asked for twice. */
export function shown(part: ReactNode, { at = '/' }: { at?: string } = {}): InHouse {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } });
  const inHouse = (inside: ReactNode) => (
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[at]}>{inside}</MemoryRouter>
    </QueryClientProvider>
  );
  const view = render(inHouse(part));
  return { unmount: view.unmount, container: view.container, client, again: (next: ReactNode) => view.rerender(inHouse(next)) };
}
