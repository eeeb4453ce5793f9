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
  'prep',
  'direct',
  'schedule',
  'protocol',
  'engine',
  'index',
];
/** Core is pure: nothing of its surroundings either. */
const CORE_FORBIDDEN = /\b(document|window|process|fetch|setTimeout|localStorage)\s*[.(]/;

const wrong = [];
const files = (dir) =>
  existsSync(dir)
    ? readdirSync(dir, { withFileTypes: true }).flatMap((e) => (e.isDirectory() ? files(join(dir, e.name)) : /\.tsx?$/.test(e.name) ? [join(dir, e.name)] : []))
    : [];
const imports = (text) => [...text.matchAll(/\b(?:from|import)\s*(?:\(\s*)?['"]([^'"]+)['"]/g)].map((m) => m[1]);
const subjectOf = (path) =>
  relative(inRoot('core', 'src'), path)
    .split(/[\\/]/)[0]
    .replace(/\.(d\.)?ts$/, '');

for (const [part, may] of Object.entries(PARTS)) {
  const base = inRoot(part, 'src');
  for (const file of files(base)) {
    const where = relative(root, file);
    const text = readFileSync(file, 'utf8');
    for (const target of imports(text)) {
      const named = /^@radiant\/([^/]+)/.exec(target)?.[1];
      if (named && !may.includes(named)) wrong.push(`${where} imports ${named}; ${part} may import ${may.join(', ') || 'nothing of the rest'}`);
      if (named === ONLY_DOOR.to && part === ONLY_DOOR.part && !where.includes(`/${ONLY_DOOR.folder}/`))
        wrong.push(`${where} imports the stand-ins; only the devices module may`);
      if (!target.startsWith('.')) {
        if (part === 'core' && !named) wrong.push(`${where} imports ${target}; core imports nothing`);
        continue;
      }
      const to = join(dirname(file), target);
      if (relative(base, to).startsWith('..')) wrong.push(`${where} reaches out of its part: ${target}`);
      else if (part === 'core') {
        const from = SUBJECTS.indexOf(subjectOf(file));
        const into = SUBJECTS.indexOf(subjectOf(to.replace(/\.js$/, '.ts')));
        if (from < 0) wrong.push(`${where}: its subject is not in the list of bin/lib/import-rule.mjs`);
        else if (into > from) wrong.push(`${where} imports ${target}: ${SUBJECTS[into]} stands below ${SUBJECTS[from]}`);
      }
    }
    if (part === 'core' && CORE_FORBIDDEN.test(text.replaceAll(/\/\*[\s\S]*?\*\/|\/\/.*/g, ''))) wrong.push(`${where} uses its surroundings; core may not`);
  }
}
if (wrong.length > 0) {
  console.error(wrong.join('\n'));
  process.exit(1);
}
console.log('imports run one way');
