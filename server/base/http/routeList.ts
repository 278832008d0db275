import type { Express } from 'express';

/** A route as it is registered. */
export interface Route {
  readonly method: string;
  /** below /api, with its parameters' names */
  readonly path: string;
}

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
  readonly handle?: { readonly stack?: readonly Layer[] };
}

/** Every route of the server, as it stands: nobody keeps a second list. */
export function routesOf(server: Express): Route[] {
  const found = new Map<string, Route>();
  const walk = (layers: readonly Layer[]): void => {
    for (const { route, handle } of layers) {
      if (route)
        for (const method of Object.keys(route.methods))
          found.set(`${method} ${route.path}`, { method: method.toUpperCase(), path: route.path });
      else if (handle?.stack) walk(handle.stack);
    }
  };
  walk((server.router as unknown as { stack: readonly Layer[] }).stack);
  return [...found.values()].filter(({ path }) => typeof path === 'string' && !path.includes('*') && path !== '/api/health');
}
