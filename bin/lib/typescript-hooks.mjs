import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { transformSync } from '@swc/core';
import { inRoot } from './paths.mjs';

const SOURCES = new Map(
  ['core', 'contract', 'standins'].map((p) => [`@radiant/${p}`, pathToFileURL(inRoot(p, 'src', 'index.ts')).href]),
);
const IS_TYPESCRIPT = /\.tsx?$/;
const KEPT = inRoot('node_modules', '.cache', 'typescript');
const HERE = createHash('sha256')
  .update(readFileSync(new URL(import.meta.url)))
  .digest('hex');

/**
 * The project's own packages from their sources, and the `.js` that a TypeScript file names from the `.ts` that it
 * means.
 */
export function resolve(specifier, context, next) {
  const own = SOURCES.get(specifier);
  if (own) return { url: own, format: 'module', shortCircuit: true };
  if (specifier.startsWith('.') && specifier.endsWith('.js') && IS_TYPESCRIPT.test(pathOf(context.parentURL))) {
    for (const ending of ['.ts', '.tsx']) {
      const url = new URL(specifier.replace(/\.js$/, ending), context.parentURL);
      if (existsSync(fileURLToPath(url))) return { url: url.href, format: 'module', shortCircuit: true };
    }
  }
  return next(specifier, context);
}

export function load(url, context, next) {
  const path = pathOf(url);
  if (!IS_TYPESCRIPT.test(path)) return next(url, context);
  return { format: 'module', source: translated(fileURLToPath(path)), shortCircuit: true };
}

const pathOf = (url) => (url ?? '').split(/[?#]/, 1)[0];

function translated(file) {
  const source = readFileSync(file, 'utf8');
  const name = `${createHash('sha256').update(HERE).update(file).update(source).digest('hex')}.js`;
  const kept = `${KEPT}/${name}`;
  if (existsSync(kept)) return readFileSync(kept, 'utf8');
  const { code } = transformSync(source, {
    filename: file,
    sourceMaps: 'inline',
    jsc: {
      parser: { syntax: 'typescript', tsx: file.endsWith('x'), decorators: true },
      transform: {
        legacyDecorator: true,
        decoratorMetadata: true,
        useDefineForClassFields: true,
        react: { runtime: 'automatic' },
      },
      target: 'es2022',
    },
    module: { type: 'es6' },
  });
  mkdirSync(KEPT, { recursive: true });
  const own = `${kept}.${process.pid}.${Math.random()}`;
  writeFileSync(own, code);
  renameSync(own, kept);
  return code;
}
