import type { OptionFigures, ToothFacts } from './facts.js';
import { HOLDING_WALL_MM } from './ids.js';
import { isCrown, type Option } from './options.js';
import { strengthOf } from './strength.js';

/** How a restoration is fixed, and what that needs. */
export interface Holding {
  readonly way: 'bonded' | 'cemented' | 'bonded or cemented';
  readonly needs: readonly string[];
  /** What of it is not given on this tooth. */
  readonly lacks: readonly string[];
}

/** Common practice, no source: the steps themselves stand in the protocol of the seating visit. */
const PRETREATED: Readonly<Partial<Record<Option['made'], string>>> = {
  composite: 'enamel etched, adhesive',
  feldspathic: 'inside etched and silanated, resin cement',
  'glass-ceramic': 'inside etched and silanated, resin cement',
  zirconia: 'inside air-abraded, cleaned of saliva, a primer with phosphate, resin cement',
};
const DRY = 'a field that stays dry, and no bleeding';
const WALLS = 'walls of 3 mm and more with 6 to 20° of taper together';

/** How an option would be held on a tooth; nothing where nothing is made. */
export function holdingOf(f: ToothFacts, o: Option, x: OptionFigures): Holding | undefined {
  if (o.made === 'nothing') return undefined;
  const dryLacks = [
    ...(f.dry === false ? ['it can’t be kept dry'] : []),
    ...(f.bleeding ? ['the gum bleeds: heal first'] : []),
  ];
  const enamelLacks =
    x.enamelShare !== undefined && x.enamelShare < 0.5 ? ['little enamel at the bond: dentin is met'] : [];
  const bond = [PRETREATED[o.made], DRY].filter((s) => s !== undefined);
  if (o.holds === 'bond') {
    const mayCement = isCrown(o) && strengthOf(o)?.bondOnly === false && (x.wallMm ?? 0) >= HOLDING_WALL_MM;
    return {
      way: mayCement ? 'bonded or cemented' : 'bonded',
      needs: [...bond, ...(mayCement ? [`cemented instead: ${WALLS}`] : ['enamel at the margins'])],
      lacks: mayCement ? [] : [...dryLacks, ...enamelLacks],
    };
  }
  const short = x.wallMm !== undefined && x.wallMm < HOLDING_WALL_MM;
  return short && o.made === 'zirconia'
    ? { way: 'bonded', needs: bond, lacks: dryLacks }
    : {
        way: 'cemented',
        needs: [WALLS, 'a margin that can be cleaned of cement'],
        lacks: short ? [`its walls are ${x.wallMm?.toFixed(1)} mm high: build up, or lengthen`] : [],
      };
}
