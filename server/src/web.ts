import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';

/**
 * Security headers with a strict content policy: own scripts only, inline styles only with this answer's own nonce, and
 * WebAssembly (the search in large scans) but no evaluation of text.
 */
export function useSecurityHeaders(app: Express): void {
  app.use((_: Request, response: Response, next: NextFunction) => {
    response.locals.nonce = randomBytes(16).toString('base64');
    next();
  });
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          'default-src': ["'none'"],
          'script-src': ["'self'", "'wasm-unsafe-eval'"],
          'style-src': ["'self'", (_: unknown, response: unknown) => `'nonce-${(response as Response).locals.nonce}'`],
          'img-src': ["'self'", 'blob:', 'data:'],
          'font-src': ["'self'"],
          'connect-src': ["'self'"],
          'worker-src': ["'self'"],
          'frame-src': ["'self'"],
          'manifest-src': ["'self'"],
          'base-uri': ["'none'"],
          'form-action': ["'self'"],
          'frame-ancestors': ["'none'"],
        },
      },
      // Browsers reach it over plain HTTP on loopback; a proxy with a certificate sets this itself.
      strictTransportSecurity: false,
      crossOriginOpenerPolicy: { policy: 'same-origin' },
      referrerPolicy: { policy: 'no-referrer' },
    }),
  );
}

/** What a page of ours may ask the browser for: nothing. */
const NOTHING_ASKED =
  'accelerometer=(), browsing-topics=(), camera=(), display-capture=(), geolocation=(), gyroscope=(), magnetometer=(), microphone=(), midi=(), payment=(), serial=(), usb=()';

/** Answers of the interface are about patients: no browser and no proxy keeps one. */
export function keepNothing(app: Express): void {
  app.use((request: Request, response: Response, next: NextFunction) => {
    response.setHeader('Permissions-Policy', NOTHING_ASKED);
    if (request.path.startsWith('/api')) response.setHeader('Cache-Control', 'no-store');
    next();
  });
}

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];

/**
 * Refuses requests that name another host than one of ours: a page elsewhere may let its own name point here, and would
 * then count as our own.
 */
export function refuseOtherHosts(app: Express, hosts: readonly string[]): void {
  const ours = new Set([...LOOPBACK, ...hosts]);
  app.use((request: Request, response: Response, next: NextFunction) => {
    const host = (request.headers.host ?? '').toLowerCase().replace(/:\d{1,5}$/, '');
    if (ours.has(host)) return next();
    refuse(response, 421, 'Not here', 'This server does not answer to that name.');
  });
}

function refuse(response: Response, status: number, title: string, detail: string): void {
  response
    .status(status)
    .type('application/problem+json')
    .send(JSON.stringify({ type: 'about:blank', title, status, detail }));
}

/** Refuses changes that come from another site's page; the cookie's SameSite says the same to the browser. */
export function refuseOtherSites(app: Express): void {
  app.use((request: Request, response: Response, next: NextFunction) => {
    const origin = request.headers.origin;
    if (request.method === 'GET' || request.method === 'HEAD' || !origin || hostOf(origin) === request.headers.host)
      return next();
    refuse(response, 403, 'Not allowed', 'The request comes from another site.');
  });
}

function hostOf(origin: string): string | undefined {
  try {
    return new URL(origin).host;
  } catch {
    return undefined;
  }
}

/**
 * The frame in which faces are found. The model's program evaluates text, so it gets a page without rights: of no
 * origin, without cookies, able to fetch nothing but its own files and to tell our page points.
 */
export function useFaceFrame(app: Express, dir: string): void {
  app.use(
    '/face-mesh',
    (request: Request, response: Response, next: NextFunction) => {
      // A page of no origin has no `self`.
      const own = `${request.protocol}://${request.headers.host}/face-mesh/`;
      response.setHeader(
        'Content-Security-Policy',
        `sandbox allow-scripts; default-src 'none'; script-src ${own} 'unsafe-eval' 'wasm-unsafe-eval'; connect-src ${own} blob:; frame-ancestors 'self'`,
      );
      response.setHeader('Access-Control-Allow-Origin', '*');
      response.setHeader('Cross-Origin-Resource-Policy', 'cross-origin');
      next();
    },
    express.static(join(dir, 'face-mesh'), { maxAge: '1h', fallthrough: false }),
  );
}

/** Serves the built web application; every path that is no file and no interface route gets its page. */
export function useWeb(app: Express, dir: string): void {
  const page = readFileSync(join(dir, 'index.html'), 'utf8');
  app.use('/assets', express.static(join(dir, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  useFaceFrame(app, dir);
  app.use(express.static(dir, { index: false, maxAge: '1h' }));
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' || request.path.startsWith('/api')) return next();
    response
      .type('html')
      .setHeader('Cache-Control', 'no-store')
      .send(page.replaceAll('__NONCE__', response.locals.nonce as string));
  });
}
