import { chromium } from 'playwright-core';
import { browserPath } from '../bin/lib/browser.mjs';

/** A browser for measuring, with WebGL in software. */
export const launchBrowser = () =>
  chromium.launch({
    executablePath: browserPath(),
    args: [
      '--no-sandbox',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-gpu-compositing',
      '--use-angle=swiftshader',
      '--enable-unsafe-swiftshader',
    ],
  });

/** A page of the house, signed in as the sample dentist. */
export async function signedInPage(browser, url) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.setDefaultTimeout(60_000);
  await page.goto(url);
  await page.getByLabel('E-mail address').fill('dentist@estuary.example');
  await page.getByLabel('Password').fill('wading birds at low tide');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: 'Cases' }).waitFor();
  return page;
}
