// Tries all jaws of the second making and writes what came of it into field-jaws.json and docs/accuracy.md:
// node --import ./bin/lib/typescript.mjs core/test/trials/record-field-jaws.ts
import { readFileSync, writeFileSync } from 'node:fs';
import { type FieldResult, type FieldSums, fieldSums, fieldTrial, fieldTrials, WRONG } from './field-jaws.js';

const HEAD = '## Own scans';
const page = new URL('../../../docs/accuracy.md', import.meta.url);

/** The sixty of which a share is tried in every run, and sixty others. */
const [all, others] = [0, 7].map((base) =>
  fieldTrials(base).map((t): FieldResult => {
    const own = fieldTrial(t);
    console.log(t.kind, t.recipe.jaw, own.refused ?? `${own.found.length} of ${own.expected.length}`);
    return own;
  }),
) as [FieldResult[], FieldResult[]];
writeFileSync(
  new URL('./field-jaws.json', import.meta.url),
  `[\n${all.map((r) => `  ${JSON.stringify({ seed: r.seed, jaw: r.jaw, kind: r.kind, guessedJaw: r.guessedJaw, right: rightOf(r), wrong: wrongOf(r), said: [...r.said] })}`).join(',\n')}\n]\n`,
);
const text = readFileSync(page, 'utf8');
const at = text.indexOf(`\n${HEAD}`);
writeFileSync(
  page,
  `${(at < 0 ? text : text.slice(0, at)).trimEnd()}\n\n${tableOf([fieldSums(all), fieldSums(others)])}`,
);

function rightOf(r: FieldResult): number {
  return r.expected.filter((t) => (r.iou.get(t) ?? 0) >= 0.5).length;
}

function wrongOf(r: FieldResult): number[] {
  return r.expected.filter((t) => (r.iou.get(t) ?? 0) < WRONG);
}

function tableOf(sums: readonly [FieldSums, FieldSums]): string {
  const percent = (v: number) => `${(100 * v).toFixed(1)} %`;
  const rows: readonly [string, (s: FieldSums) => string][] = [
    ['jaws with all teeth found and numbered right', (s) => `${s.allRight} of ${s.jaws}`],
    ['numbers right, of teeth expected', (s) => percent(s.numbersRight / s.teeth)],
    ['overlap with the true crown by area, median', (s) => s.iouMedian.toFixed(3)],
    [`teeth with an overlap under ${WRONG}, not found among them`, (s) => percent(s.iouWrong)],
    ['neck line off, median and 95th percentile, mm', (s) => `${s.neckMedian.toFixed(2)}, ${s.neckP95.toFixed(2)}`],
    ['width and length off, 95th percentile, mm', (s) => `${s.widthP95.toFixed(2)}, ${s.lengthP95.toFixed(2)}`],
    ['teeth wrong and nothing said', (s) => `${s.silent} of ${s.wrong} wrong`],
    ['upper or lower guessed wrong', (s) => `${s.guessedWrong}`],
    ['refused', (s) => `${s.refused}`],
    ['right teeth with a doubt', (s) => `${s.needless} of ${s.teeth}`],
  ];
  return `${HEAD}

Teeth picked out of ${sums[0].jaws} jaws of a second making, which shares no form with the first: fields with cusps and
fissures, molars, a palate, crowded, with gaps, teeth missing, worn, short, receded, prepared, veneered, anterior only,
with a deep curve, a tongue or a cheek in view, a base, coarse, fine, noisy, thinned on one half, and in other units.
Each is opened, laid and picked as proposed, nothing done by hand; what the record says of missing teeth is known.
Written by \`core/test/trials/record-field-jaws.ts\`; some of them are tried in every run of the tests.

| | these | ${sums[1].jaws} others |
|---|---|---|
${rows.map(([name, of]) => `| ${name} | ${sums.map(of).join(' | ')} |`).join('\n')}

A doubt that is so is not counted: that a crown is 2 mm shorter than that of the other side where it truly is, or that a
canine that is worn or cut flat has no cusp. Lengths are furthest off on stumps, where the neck is a ledge, and on the
jaws thinned to 0.8 mm. What is wrong of the others is nearly all one jaw with a cheek against its teeth, which is
numbered wrongly; that its numbers are unsure is said.

The truth of a jaw of fields is known to a few hundredths of a millimetre at smooth places and worse where tooth, gum
and neighbour run into each other; necks are no better than that. Widths and lengths are those of a crown's own surface
along its own axes.
`;
}
