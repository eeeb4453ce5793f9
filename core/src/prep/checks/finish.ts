import { ANGLES, DIRECTIONS } from '../../reduction/target-grid.js';
import type { PrepFinding } from '../finding.js';
import { type FinishPlace, finishFound } from '../finish-found.js';
import { PREP_LIMITS } from '../limits.js';
import { targetField } from '../prep-tooth.js';
import type { Check, Checked } from './checked.js';
import { mm } from './checked.js';

/** So many directions make a stretch that is told; a fifth of them may slip. House values. */
const STRETCH = 10;
/** Nearer to the gum line than this it lies at it, mm. House value. */
const AT_GUM_MM = 0.15;
/** A lip is told where it goes along so much of a side. House value. */
const LIP_SHARE = 0.2;
/** A leap is told against the middle of so many directions to either side. House value. */
const MEANT_OVER = 6;
/** Of a side's directions. House value. */
const HIDDEN_SHARE = 0.25;
const SIDES = ['facial', 'mesial', 'distal', 'palatal'] as const;

/** The finish line: there all around, at its level, wide enough, and of its form. */
export const finishCheck: Check = (c) => {
  const places = finishOf(c);
  const sides = SIDES.map((side) => ({ side, own: places.filter((p) => sideOf(c, p.at) === side) })).filter(
    ({ own }) => own.length >= STRETCH,
  );
  const told = sides.flatMap(({ side, own }) => {
    const seen = own.filter((p) => !p.hidden);
    return seen.length < STRETCH ? [] : [sideFinding(c, side, seen)];
  });
  const dark = sides.filter(({ own }) => own.filter((p) => p.hidden).length > HIDDEN_SHARE * own.length);
  const ragged = raggedFinding(c, places);
  return [
    ...told,
    ...sides.flatMap(({ side, own }) => lipFinding(c, side, own)),
    ...(ragged ? [ragged] : []),
    ...(dark.length === 0 ? [] : [hiddenFinding(c, dark)]),
  ];
};

/** A course that leaps: a technician has to guess which of its steps is meant. */
function raggedFinding(c: Checked, places: readonly FinishPlace[]): PrepFinding | undefined {
  const own = places.filter((p) => p.found && !p.byHand);
  const off = own.flatMap((p) => {
    const near = own.filter((q) => Math.abs(q.at - p.at) <= MEANT_OVER);
    if (near.length < MEANT_OVER) return [];
    return [Math.abs((p.highMm as number) - middleOf(near.map((q) => q.highMm as number)))];
  });
  if (off.length < STRETCH) return undefined;
  const value = [...off].sort((a, b) => a - b)[Math.floor(0.9 * off.length)] as number;
  const { ragged } = PREP_LIMITS;
  const bad = value > ragged.value + c.pmMm;
  const worst = own[off.indexOf(Math.max(...off))]?.found;
  return {
    check: 'finish',
    tooth: c.tooth,
    state: bad ? 'look' : 'right',
    place: 'course of the finish line',
    value,
    pm: c.pmMm,
    unit: 'mm',
    limit: ragged.value,
    source: ragged.source,
    says: `{${c.tooth}}: the finish line runs ${bad ? 'raggedly, it leaps by' : 'smoothly, within'} ${mm(value)} mm`,
    ...(bad && { todo: 'lead a fine-grit bur along it once, evenly' }),
    ...(bad && worst && { at: worst }),
  };
}

/** Where its cut ends, all around. */
export const finishOf = (c: Checked): FinishPlace[] =>
  finishFound(
    c.target,
    c.scan,
    targetField(c.target),
    c.design.around !== undefined,
    c.rest && { rest: c.rest, gumMm: c.design.finish.belowGumMm },
    c.drawn,
  );

/** Tooth that a groove has left standing outside: it breaks when a piece is made for it, or seated. */
function lipFinding(c: Checked, side: string, own: readonly FinishPlace[]): PrepFinding[] {
  const found = own.filter((p) => p.lipMm !== undefined);
  const { lip } = PREP_LIMITS;
  const bad = found.filter((p) => (p.lipMm as number) > lip.value + c.pmMm / 2);
  if (found.length < STRETCH || bad.length < LIP_SHARE * found.length) return [];
  const value = middleOf(bad.map((p) => p.lipMm as number));
  const at = bad[bad.length >> 1]?.found;
  return [
    {
      check: 'finish',
      tooth: c.tooth,
      state: 'look',
      place: `${side} lip`,
      value,
      pm: c.pmMm,
      unit: 'mm',
      limit: lip.value,
      source: lip.source,
      says: `{${c.tooth}} ${side}: a lip stands outside the finish line on ${((100 * bad.length) / found.length).toFixed(0)} % of its course; ${c.design.around ? `the floor inside it lies ${mm(value)} mm nearer the root` : `the groove inside it is ${mm(value)} mm deeper than the cut behind`}`,
      todo: 'take the lip off from outside with a fine-grit bur; don’t deepen the groove',
      ...(at && { at }),
    },
  ];
}

/** The end that a technician can't see: where a cut ends is only known by the uncut tooth beyond it. */
function hiddenFinding(
  c: Checked,
  sides: readonly { readonly side: string; readonly own: readonly FinishPlace[] }[],
): PrepFinding {
  const all = sides.flatMap((s) => s.own);
  const hidden = all.filter((p) => p.hidden);
  const share = hidden.length / all.length;
  const at = hidden[hidden.length >> 1]?.wished;
  return {
    check: 'finish',
    tooth: c.tooth,
    state: 'look',
    place: 'beyond the finish line',
    value: share,
    pm: 0,
    unit: 'share',
    limit: HIDDEN_SHARE,
    source: { mark: 'house', text: 'house value' },
    says: `{${c.tooth}} ${sides.map((s) => s.side).join(', ')}: on ${(100 * share).toFixed(0)} % of its course the scan shows no uncut tooth beyond the finish line, so that nobody sees where it ends`,
    todo: 'push the gum back, dry it, and scan that place again',
    ...(at && { at }),
  };
}

function sideOf(c: Checked, at: number): (typeof SIDES)[number] {
  const [x, y] = DIRECTIONS[at % ANGLES] as readonly [number, number, number];
  if (Math.abs(y) >= Math.abs(x)) return y < 0 ? 'facial' : 'palatal';
  return x * c.distal > 0 ? 'distal' : 'mesial';
}

const middleOf = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] as number;

/** Where it lies against the gum line, as that was before the teeth were cut. */
function gumWords(belowMm: number): string {
  if (Math.abs(belowMm) < AT_GUM_MM) return 'at the gum line as it was';
  return `${mm(Math.abs(belowMm))} mm ${belowMm > 0 ? 'below' : 'above'} the gum line as it was`;
}

function sideFinding(c: Checked, side: string, own: readonly FinishPlace[]): PrepFinding {
  const found = own.filter((p) => p.found);
  const byHand = found.some((p) => p.byHand) ? ', drawn by hand' : '';
  const { level, ledgeShare } = PREP_LIMITS;
  const base = {
    check: 'finish' as const,
    tooth: c.tooth,
    place: `${side} finish line`,
    pm: c.pmMm,
    unit: 'mm' as const,
  };
  const gap = own.length - found.length;
  if (gap > own.length / 5) {
    const at = own.find((p) => !p.found)?.wished;
    return {
      ...base,
      state: 'cut',
      value: found.length / own.length,
      unit: 'share',
      limit: 1,
      source: level.source,
      says: `{${c.tooth}} ${side}: no finish line on ${((100 * gap) / own.length).toFixed(0)} % of its course`,
      todo: 'cut the finish line there',
      ...(at && { at }),
    };
  }
  const high = middleOf(found.map((p) => p.highMm as number));
  // Half a millimetre in a scan may show nothing any more.
  const depths = found.map((p) => p.depthMm!).filter((mm) => !Number.isNaN(mm));
  const deep = depths.length > 0 ? middleOf(depths) : undefined;
  const wished = middleOf(found.map((p) => p.wishedDepthMm!));
  const at = found[found.length >> 1]?.found;
  const here = at ? { at } : {};
  if (Math.abs(high) > level.value + c.pmMm)
    return {
      ...base,
      state: high > 0 ? 'cut' : 'over',
      value: high,
      limit: level.value,
      source: level.source,
      says: `{${c.tooth}} ${side}: the finish line lies ${mm(Math.abs(high))} mm too ${high > 0 ? 'far to the edge' : 'near the root'}${byHand}`,
      todo: high > 0 ? `take it ${mm(high)} mm nearer to the gum` : 'ask where the gum will lie; it can’t be put back',
      ...here,
      ...(high > 0 && { cutMm: high, along: true as const }),
    };
  const shapes = found.map((p) => p.form as string);
  const form = ['shoulder', 'chamfer', 'knife edge'].reduce((a, b) =>
    shapes.filter((f) => f === b).length > shapes.filter((f) => f === a).length ? b : a,
  );
  if (deep !== undefined && deep < ledgeShare.value * wished - c.pmMm / 2)
    return {
      ...base,
      state: 'cut',
      value: deep,
      limit: ledgeShare.value * wished,
      source: ledgeShare.source,
      says: `{${c.tooth}} ${side}: ${form === 'knife edge' ? 'a knife edge' : 'a narrow ledge'}, ${mm(deep)} mm deep half a millimetre in, where ${mm(wished)} was asked`,
      todo: `deepen the ledge by ${mm(wished - deep)} mm`,
      cutMm: wished - deep,
      ...here,
    };
  return {
    ...base,
    state: 'right',
    value: high,
    limit: level.value,
    source: level.source,
    says: `{${c.tooth}} ${side}: ${form}, ${deep === undefined ? 'its width not seen' : `${mm(deep)} mm half a millimetre in`}, ${gumWords(c.design.finish.belowGumMm - high)}${byHand}`,
    ...here,
  };
}
