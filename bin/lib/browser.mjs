import { existsSync } from 'node:fs';

/** Debian's Chromium without a window, which has less to do than the whole one; where it is not to be had, the whole. */
export const BROWSERS = [
  { package: 'chromium-headless-shell', path: '/usr/bin/chromium-headless-shell' },
  { package: 'chromium', path: '/usr/bin/chromium' },
];

/** The browser of the tests and the bench; undefined while none is installed. */
export const browserPath = () => BROWSERS.map((b) => b.path).find((p) => existsSync(p));
