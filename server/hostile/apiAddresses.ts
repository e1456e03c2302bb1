import type { Router } from 'express';

export interface Address {
  readonly method: string;
  /** With parameters as `:name`. */
  readonly path: string;
  readonly params: readonly string[];
}

/** Every method and path that a router answers, found in the router itself, those of routers within it too. */
export function addressesOf(router: Router): Address[] {
  return router.stack.flatMap((layer) => {
    const { route } = layer;
    if (!route) return isRouter(layer.handle) ? addressesOf(layer.handle) : [];
    const params = [...route.path.matchAll(/:(\w+)/g)].map((match) => match[1]!);
    return route.stack
      .map(({ method }) => method)
      .filter((method, i, all) => method && all.indexOf(method) === i)
      .map((method) => ({ method: method!.toUpperCase(), path: route.path, params }));
  });
}

const isRouter = (handle: unknown): handle is Router => typeof handle === 'function' && 'stack' in handle;
