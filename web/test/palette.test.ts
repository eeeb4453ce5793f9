import { readdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { PALETTE } from '../src/ui/palette.js';

const css = readFileSync(resolve('web/src/index.css'), 'utf8');
const sources = (dir: string): string[] =>
  readdirSync(dir, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? sources(join(dir, e.name)) : /\.tsx?$/.test(e.name) ? [join(dir, e.name)] : [],
  );
const all = sources(resolve('web/src')).map((path) => [path, readFileSync(path, 'utf8')] as const);

it('the drawings have the colours of the theme', () => {
  const theme = [...css.matchAll(/--color-([a-z0-9-]+): (#[0-9a-f]{6});/g)].map(([, name, value]) => [
    String(name).replace(/-([a-z0-9])/g, (_, c: string) => c.toUpperCase()),
    value,
  ]);
  const { white, ...palette } = PALETTE;
  expect(white).toBe('#ffffff');
  expect(Object.entries(palette).filter(([name]) => !theme.some(([t]) => t === name))).toEqual([]);
  for (const [name, value] of theme)
    if (name && name in palette) expect([name, palette[name as never]]).toEqual([name, value]);
});

it('no colour of the palette and no size of text is written out elsewhere', () => {
  const own = new RegExp(Object.values(PALETTE).join('|'), 'i');
  const told = all.filter(
    ([path, text]) => !path.endsWith('palette.ts') && (own.test(text) || /text-\[[0-9.]+px\]/.test(text)),
  );
  expect(told.map(([path]) => path)).toEqual([]);
});
