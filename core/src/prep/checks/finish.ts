import { ANGLES, DIRECTIONS } from '../../reduction/target-grid.js';
import type { PrepFinding } from '../finding.js';
import { type FinishPlace, finishFound } from '../finish-found.js';
import { PREP_LIMITS } from '../limits.js';
import { targetField } from '../prep-tooth.js';
import type { Check, Checked } from './checked.js';
import { mm } from './checked.js';

/** So many directions make a stretch that is told; a fifth of them may slip. House values. */
const STRETCH = 10;
const SIDES = ['facial', 'mesial', 'distal', 'palatal'] as const;

/** The finish line: there all around, at its level, wide enough, and of its form. */
export const finishCheck: Check = (c) => {
  const places = finishFound(c.target, c.scan, targetField(c.target), c.design.around !== undefined);
  return SIDES.flatMap((side) => {
    const own = places.filter((p) => sideOf(c, p.at) === side);
    return own.length < STRETCH ? [] : [sideFinding(c, side, own)];
  });
};

function sideOf(c: Checked, at: number): (typeof SIDES)[number] {
  const [x, y] = DIRECTIONS[at % ANGLES] as readonly [number, number, number];
  if (Math.abs(y) >= Math.abs(x)) return y < 0 ? 'facial' : 'palatal';
  return x * c.distal > 0 ? 'distal' : 'mesial';
}

const middleOf = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] as number;

function sideFinding(c: Checked, side: string, own: readonly FinishPlace[]): PrepFinding {
  const found = own.filter((p) => p.found);
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
      unit: 'mm',
      limit: 1,
      source: level.source,
      says: `{${c.tooth}} ${side}: no finish line on ${((100 * gap) / own.length).toFixed(0)} % of its course`,
      todo: 'cut the finish line there',
      ...(at && { at }),
    };
  }
  const high = middleOf(found.map((p) => p.highMm as number));
  const [deep, wished] = [middleOf(found.map((p) => p.depthMm!)), middleOf(found.map((p) => p.wishedDepthMm!))];
  const at = found[found.length >> 1]?.found;
  const here = at ? { at } : {};
  if (Math.abs(high) > level.value + c.pmMm)
    return {
      ...base,
      state: high > 0 ? 'cut' : 'over',
      value: high,
      limit: level.value,
      source: level.source,
      says: `{${c.tooth}} ${side}: the finish line lies ${mm(Math.abs(high))} mm too ${high > 0 ? 'far to the edge' : 'near the root'}`,
      todo: high > 0 ? `take it ${mm(high)} mm nearer to the gum` : 'ask where the gum will lie; it can’t be put back',
      ...here,
      ...(high > 0 && { cutMm: high, along: true as const }),
    };
  const shapes = found.map((p) => p.form as string);
  const form = ['shoulder', 'chamfer', 'knife edge'].reduce((a, b) =>
    shapes.filter((f) => f === b).length > shapes.filter((f) => f === a).length ? b : a,
  );
  if (deep < ledgeShare.value * wished - c.pmMm / 2)
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
    says: `{${c.tooth}} ${side}: ${form}, ${mm(deep)} mm half a millimetre in`,
    ...here,
  };
}
