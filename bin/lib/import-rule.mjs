import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { inRoot, root } from './paths.mjs';

/**
 * Imports run one way. Parts may import only the parts named here, and only by their package name; only the server's
 * devices module knows the stand-ins; and inside core a subject may import only what stands above it.
 */
const PARTS = {
  core: [],
  contract: ['core'],
  standins: ['core'],
  server: ['core', 'contract', 'standins'],
  web: ['core', 'contract'],
};
const ONLY_DOOR = { part: 'server', folder: 'devices', to: 'standins' };
const SUBJECTS = [
  'errors',
  'working',
  'teeth',
  'geometry',
  'formats',
  'smile',
  'proportion',
  'contour',
  'scan',
  'tissue',
  'occlusion',
  'colour',
  'material',
  'restoration',
  'reduction',
  'decide',
  'prep',
  'direct',
  'schedule',
  'protocol',
  'engine',
  'index',
];
/** Inside web a folder may import only what is named beside it; a stage imports no other stage. */
const WEB = {
  ui: [],
  data: ['ui'],
  engine: ['data', 'ui'],
  bench: ['engine', 'data', 'ui'],
  shell: ['bench', 'engine', 'data', 'ui'],
  pages: ['shell', 'bench', 'engine', 'data', 'ui'],
  stages: ['shell', 'bench', 'engine', 'data', 'ui'],
};
/** Core is pure: nothing of its surroundings either. */
const CORE_FORBIDDEN = /\b(document|window|process|fetch|setTimeout|localStorage)\s*[.(]/;

const wrong = [];
/** Of each part, which folder imports which, and a file that does. */
const folders = new Map();
const files = (dir) =>
  existsSync(dir)
    ? readdirSync(dir, { withFileTypes: true }).flatMap((e) =>
        e.isDirectory() ? files(join(dir, e.name)) : /\.tsx?$/.test(e.name) ? [join(dir, e.name)] : [],
      )
    : [];
const imports = (text) => [...text.matchAll(/\b(?:from|import)\s*(?:\(\s*)?['"]([^'"]+)['"]/g)].map((m) => m[1]);
const subjectOf = (path) =>
  relative(inRoot('core', 'src'), path)
    .split(/[\\/]/)[0]
    .replace(/\.(d\.)?ts$/, '');

/**
 * The folder that a file belongs to: below a part's sources; a stage is one of its own, and so is a file that lies in
 * none.
 */
function folderOf(base, path) {
  const [first, second, third] = relative(base, path).split(/[\\/]/);
  if (second === undefined) return `./${first.replace(/\.(d\.)?[jt]sx?$/, '')}`;
  return first === 'stages' && third !== undefined ? `stages/${second}` : first;
}

function note(part, from, into, where) {
  if (from === into || (from.startsWith('./') && into.startsWith('./'))) return;
  const own = folders.get(part) ?? new Map();
  folders.set(part, own);
  if (!own.has(from)) own.set(from, new Map());
  if (!own.get(from).has(into)) own.get(from).set(into, where);
}

/** A way from a folder back to itself, as names; undefined where there is none. */
function circleFrom(graph, start) {
  const way = [];
  const seen = new Set();
  const go = (at) => {
    if (seen.has(at)) return false;
    seen.add(at);
    way.push(at);
    for (const next of graph.get(at)?.keys() ?? []) if (next === start || go(next)) return true;
    way.pop();
    return false;
  };
  return go(start) ? [...way, start] : undefined;
}

for (const [part, may] of Object.entries(PARTS)) {
  const base = inRoot(part, 'src');
  for (const file of files(base)) {
    const where = relative(root, file);
    const text = readFileSync(file, 'utf8');
    for (const target of imports(text)) {
      const named = /^@radiant\/([^/]+)/.exec(target)?.[1];
      if (named && !may.includes(named))
        wrong.push(`${where} imports ${named}; ${part} may import ${may.join(', ') || 'nothing of the rest'}`);
      if (named === ONLY_DOOR.to && part === ONLY_DOOR.part && !where.includes(`/${ONLY_DOOR.folder}/`))
        wrong.push(`${where} imports the stand-ins; only the devices module may`);
      if (!target.startsWith('.')) {
        if (part === 'core' && !named) wrong.push(`${where} imports ${target}; core imports nothing`);
        continue;
      }
      const to = join(dirname(file), target);
      if (relative(base, to).startsWith('..')) wrong.push(`${where} reaches out of its part: ${target}`);
      else note(part, folderOf(base, file), folderOf(base, to), where);
      if (part === 'core') {
        const from = SUBJECTS.indexOf(subjectOf(file));
        const into = SUBJECTS.indexOf(subjectOf(to.replace(/\.js$/, '.ts')));
        if (from < 0) wrong.push(`${where}: its subject is not in the list of bin/lib/import-rule.mjs`);
        else if (into > from)
          wrong.push(`${where} imports ${target}: ${SUBJECTS[into]} stands below ${SUBJECTS[from]}`);
      }
    }
    if (part === 'core' && CORE_FORBIDDEN.test(text.replaceAll(/\/\*[\s\S]*?\*\/|\/\/.*/g, '')))
      wrong.push(`${where} uses its surroundings; core may not`);
  }
}
for (const [from, targets] of folders.get('web') ?? [])
  for (const [into, where] of targets) {
    // What brings everything together may import all of it.
    if (from.startsWith('./') || from === 'stages') continue;
    const may = WEB[from.split('/')[0]];
    if (!may) wrong.push(`${where}: ${from} is not in the order of bin/lib/import-rule.mjs`);
    else if (!may.includes(into))
      wrong.push(`${where} imports from ${into}; ${from} may import ${may.join(', ') || 'nothing of the rest'}`);
  }
for (const [part, graph] of folders) {
  const told = new Set();
  for (const start of [...graph.keys()].sort()) {
    const circle = circleFrom(graph, start);
    const key = circle && [...new Set(circle)].sort().join();
    if (!circle || told.has(key)) continue;
    told.add(key);
    wrong.push(`${part}: ${circle.join(' → ')} is a circle of folders`);
  }
}
if (wrong.length > 0) {
  console.error(wrong.join('\n'));
  process.exit(1);
}
console.log('imports run one way');
