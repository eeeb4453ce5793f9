// Tries preparations with known faults and writes what was found of them into docs/accuracy.md, before *Own scans*:
// node --import ./bin/lib/typescript.mjs core/test/trials/record-preps.ts
import { readFileSync, writeFileSync } from 'node:fs';
import { type Fault, type PrepResult, prepTrial, prepTrials, SPEAKS } from './faulty-preps.js';

const HEAD = '## Preparations';
const NEXT = '## Own scans';
const page = new URL('../../../docs/accuracy.md', import.meta.url);
const TRIED = 200;

const all: PrepResult[] = [];
for (const trial of prepTrials(TRIED)) {
  const own = prepTrial(trial);
  all.push(own);
  console.log(
    all.length,
    own.found.join(),
    own.missed.map((f) => `MISSED ${f}`).join(),
    own.false.map((f) => f.says).join(' | '),
  );
}
const text = readFileSync(page, 'utf8');
const [from, to] = [text.indexOf(`\n${HEAD}`), text.indexOf(`\n${NEXT}`)];
writeFileSync(page, `${text.slice(0, from < 0 ? to : from)}\n${tableOf()}${text.slice(to)}`);

function tableOf(): string {
  const rows = (Object.keys(SPEAKS) as Fault[]).map((f) => {
    const asked = all.filter((r) => f in r.trial.faults && !r.notThere.includes(f));
    const found = asked.filter((r) => r.found.includes(f)).length;
    const amounts = [...new Set(asked.map((r) => r.trial.faults[f]))].filter((a) => a !== 1).join(' or ');
    return `| ${f} | ${amounts}${f === 'tapered' ? '°' : amounts ? ' mm' : ''} | ${found} of ${asked.length} |`;
  });
  const clean = all.filter((r) => Object.keys(r.trial.faults).length === 0);
  const [looked, wrong] = [clean.reduce((n, r) => n + r.looked, 0), clean.reduce((n, r) => n + r.false.length, 0)];
  return `${HEAD}

${TRIED} teeth of ${new Set(all.map((r) => r.trial.seed)).size} virtual patients, cut by a simulated dentist that shares
no form with the target: every third without a fault, the others with one or two, half of them veneers and half crowns.
Written by \`core/test/trials/record-preps.ts\`; some are tried in every run of the tests.

| fault | by | found |
|---|---|---|
${rows.join('\n')}

Of ${clean.length} without a fault ${looked} things were looked at, and ${wrong} said to be wrong
(${((100 * wrong) / looked).toFixed(1)} %). What truly hangs over on the way out, by rays of three-mesh-bvh, is not
counted there, since the simulated dentist does not look for a way, nor are walls that a short tooth has so low.
Crowns have a chamfer: a shoulder is none of its cuts. Of the edges that were to be short ${all.filter((r) => r.notThere.length > 0).length} are not counted: its own rounding
has taken them down to the target, by their outermost point. Its cuts have steps of 0.16 mm, and of 0.1 where a corner
is to be sharp or a lip to stand; a corner within 0.05 mm of the limit is said to be perhaps too sharp.
`;
}
