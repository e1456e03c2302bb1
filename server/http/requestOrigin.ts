import type { RequestHandler } from 'express';
import { isIP } from 'node:net';
import { Problem } from './problem';

/** What a person would type to reach this server, beside loopback: from HOST and ZEPHIRO_HOSTS. */
export interface KnownHosts {
  readonly names: ReadonlySet<string>;
}

/** @param named host names or addresses without ports; empty ones and wildcards for "all interfaces" are left out */
export function knownHosts(named: readonly string[]): KnownHosts {
  const wild = new Set(['', '0.0.0.0', '::', '[::]']);
  return { names: new Set(named.map((name) => name.trim().toLowerCase()).filter((name) => !wild.has(name))) };
}

const isLoopback = (name: string): boolean =>
  name === 'localhost' ||
  name.endsWith('.localhost') ||
  name === '::1' ||
  (isIP(name) === 4 && name.startsWith('127.'));

/**
 * Host name of a Host header or of an origin's host, without port and brackets; null when it is neither a name nor an
 * address.
 */
function hostName(host: string): string | null {
  const match = /^(?:\[([0-9a-f:.]+)\]|([a-z0-9._-]+))(?::\d{1,5})?$/i.exec(host);
  return match ? (match[1] ?? match[2]!).toLowerCase().replace(/\.$/, '') : null;
}

/**
 * Answers only requests for a known Host: a foreign name that was made to resolve to this machine (DNS rebinding) would
 * count as this origin in a browser. Known are loopback, what the person named, and the very address the connection
 * came in on: an address cannot be rebound.
 */
export const knownHostOnly =
  ({ names }: KnownHosts): RequestHandler =>
  (req, _res, next) => {
    const name = hostName(req.headers.host ?? '');
    const own = req.socket.localAddress?.replace(/^::ffff:/, '').toLowerCase();
    if (name === null || !(isLoopback(name) || names.has(name) || (isIP(name) !== 0 && name === own))) {
      throw new Problem(
        421,
        'Not this server',
        'It does not go by that name. Start it with ZEPHIRO_HOSTS=<name> if it shall. Nothing was changed.',
      );
    }
    next();
  };

/**
 * Refuses what a page of another origin asks for. Comes after `knownHostOnly`, which makes sure that Host can be
 * compared with.
 */
export const sameOriginOnly: RequestHandler = (req, _res, next) => {
  const { origin, host, 'sec-fetch-site': site } = req.headers;
  const foreign = origin !== undefined && originHost(origin) !== host?.toLowerCase();
  if (foreign || (site !== undefined && site !== 'same-origin' && site !== 'none')) {
    throw new Problem(403, 'Not from here', 'Requests from other sites are refused. Nothing was changed.');
  }
  next();
};

/** Host and port of an Origin header as Host would have them; null for `null` and for what is no origin. */
function originHost(origin: string): string | null {
  const match = /^https?:\/\/([^/?#@\s]+)$/i.exec(origin);
  return match && hostName(match[1]!) !== null ? match[1]!.toLowerCase() : null;
}
