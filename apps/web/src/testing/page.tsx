import { ChakraProvider } from '@chakra-ui/react';
import type { AnyEndpoint, Brief, ReplyOf } from '@coomb/contract';
import { defaultScheme } from '@coomb/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render } from '@testing-library/react';
import { type ReactNode, Suspense } from 'react';
import { createMemoryRouter, type RouteObject, useLocation } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { afterEach, beforeEach, vi } from 'vitest';
import { belowProject, viewAt } from '../frame/view-at';
import type { Project } from '../shared/live/project-queries';
import { forgetNotices, Notices } from '../shared/ui/notices';
import { system } from '../shared/ui/theme';
import { HereProvider } from '../shared/view';
import { views } from '../views';

/** A made-up id that the contract accepts, from a number. */
export const idOf = (number: number) => `01890000-0000-7000-8000-${String(number).padStart(12, '0')}`;

export const aProject: Project = {
  id: idOf(1),
  name: 'Larkbeck Weir',
  createdAt: '2026-11-01T08:00:00.000Z',
  items: 3,
  links: 1,
  seq: 7,
  scheme: defaultScheme as Project['scheme'],
  standing: 'open',
  sets: [],
  collections: [
    { id: idOf(11), name: 'System requirements', holds: 'specification', prefix: 'SYS', kind: 'requirement', withdrawn: false, set: null, items: 2 },
    { id: idOf(12), name: 'Gate tests', holds: 'tests', prefix: 'TC', kind: 'testCase', withdrawn: false, set: null, items: 1 },
  ],
  waiting: { gather: 1, shape: 0, link: 2, check: 1, publish: 7 },
};

type Answer = unknown | ((sent: { body: unknown; url: URL }) => unknown);
const answers: { endpoint: AnyEndpoint; answer: Answer }[] = [];
/** Every call the page made, in order: `GET /projects/…`. */
export const calls: { call: string; body: unknown }[] = [];

/** What the server would answer; the reply goes through the contract in the page, as it does in life. A thrown `Refusal` is a refusal. */
export function answer<E extends AnyEndpoint>(endpoint: E, reply: ReplyOf<E> | ((sent: { body: unknown; url: URL }) => ReplyOf<E>)): void {
  answers.unshift({ endpoint, answer: reply });
}

export class Refusal extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly status = 409,
  ) {
    super(message);
  }
}

function matches(path: string, actual: string): boolean {
  return new RegExp(`^/api${path.replace(/:\w+/g, '[^/]+')}$`).test(actual);
}

async function answerCall(input: string, init: RequestInit = {}): Promise<Response> {
  const url = new URL(input, location.href);
  const method = init.method ?? 'GET';
  const body = typeof init.body === 'string' ? JSON.parse(init.body) : undefined;
  calls.push({ call: `${method} ${url.pathname.replace('/api', '')}`, body });
  const found = answers.find(({ endpoint }) => endpoint.method === method && matches(endpoint.path, url.pathname));
  const json = (value: unknown, status: number) => new Response(JSON.stringify(value), { status, headers: { 'Content-Type': 'application/json' } });
  if (!found) return json({ error: { code: 'not-found', message: `No answer is prepared for ${method} ${url.pathname}` } }, 404);
  try {
    return json(typeof found.answer === 'function' ? found.answer({ body, url }) : found.answer, 200);
  } catch (error) {
    if (error instanceof Refusal) return json({ error: { code: error.code, message: error.message } }, error.status);
    throw error;
  }
}

/** Gives the page what a browser has and jsdom lacks; forgets answers between tests. */
export function usePage(): void {
  beforeEach(() => {
    forgetNotices();
    vi.stubGlobal('fetch', answerCall);
    vi.stubGlobal(
      'ResizeObserver',
      class {
        observe() {}
        unobserve() {}
        disconnect() {}
      },
    );
    // The line to the server is there and says nothing.
    vi.stubGlobal(
      'EventSource',
      class {
        close() {}
      },
    );
    Element.prototype.scrollIntoView = () => {};
    Element.prototype.scrollTo = () => {};
    for (const [side, size] of Object.entries({ clientHeight: 640, offsetHeight: 640, clientWidth: 1280, offsetWidth: 1280 }))
      Object.defineProperty(HTMLElement.prototype, side, { configurable: true, get: () => size });
  });
  afterEach(() => {
    cleanup();
    answers.length = 0;
    calls.length = 0;
    vi.unstubAllGlobals();
  });
}

let address = '';
/** Where the page is now: path and query. */
export const presentAddress = () => address;

/** Notes the address, and stands for the frame: it says which view is shown. */
function Here({ children }: { children?: ReactNode }) {
  const { pathname, search } = useLocation();
  address = `${pathname}${search}`;
  return <HereProvider value={viewAt(views, belowProject(pathname))}>{children}</HereProvider>;
}

/** Shows a view at an address as the application would, with its router, theme and queries. */
export function show(view: ReactNode, { path = '/p/:project', at = `/p/${aProject.id}` }: { path?: string; at?: string } = {}) {
  const element = (
    <Here>
      <Suspense fallback={null}>{view}</Suspense>
    </Here>
  );
  return showRoutes(
    [
      { path, element },
      { path: '*', element: <Here /> },
    ],
    at,
  );
}

/** Shows the application, or a part of its routes, at an address. */
export function showRoutes(routes: RouteObject[], at: string) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, gcTime: 0 } } });
  const router = createMemoryRouter(routes, { initialEntries: [at] });
  return render(
    <QueryClientProvider client={client}>
      <ChakraProvider value={system}>
        <RouterProvider router={router} />
        <Notices />
      </ChakraProvider>
    </QueryClientProvider>,
  );
}

/** A short word of an item, as lists have it. */
export const aBrief = (number: number, title: string, change: Partial<Brief> = {}): Brief => ({
  id: idOf(100 + number),
  node: number,
  reference: `SYS-${String(number).padStart(3, '0')}`,
  title,
  kind: 'requirement',
  collection: aProject.collections[0]!.id,
  heading: false,
  withdrawn: false,
  state: 'verified',
  ...change,
});

/** What was sent to a call, each time it was made with something. */
export const sentTo = (path: RegExp) => calls.flatMap(({ call, body }) => (path.test(call) && body !== undefined ? [body] : []));
