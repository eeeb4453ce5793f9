import type { Design } from '../../restoration/design.js';
import { type Fdi, isPremolar } from '../../teeth/notation.js';
import { type Bur, hasTip, leanDeg } from '../burs/bur.js';
import type { Groove } from '../burs/choose.js';
import { type Engagement, type How, tiltedDepth } from '../burs/engagement.js';
import { NOTHING_MM, PROUD_MM } from '../removal.js';
import type { TargetTold } from '../target-zones.js';
import { wayWords } from '../way-out.js';
import type { Zone } from '../zones.js';
import type { Roles } from './roles.js';

/** Where on a tooth something is done, and where it is drawn. */
export type StepPlace =
  | Zone
  | 'neighbours'
  | 'whole face'
  | 'cervical half'
  | 'incisal half'
  | 'sides'
  | 'finish line'
  | 'palatal'
  | 'all round';

/** How a bur is run. Common practice, no source; the maker's sheet comes first. */
export const SPEEDS = {
  cut: 'high speed, up to 200 000 /min, full water',
  fine: 'reduced speed, up to 40 000 /min, water',
  polish: 'low speed, up to 10 000 /min, hardly any pressure',
} as const;
export type Speed = keyof typeof SPEEDS;

/** One step of a tooth's preparation. mm. */
export interface CutStep {
  /** What is done, in a few words. */
  readonly title: string;
  /** How, in whole sentences. */
  readonly detail: string;
  /** How, in a few words, where there is room for no more. */
  readonly brief?: string;
  readonly places: readonly StepPlace[];
  readonly bur?: Bur;
  readonly how?: How;
  /** What is set: the depth of the groove. */
  readonly depthMm?: number;
  /** How many grooves, in words. */
  readonly grooves?: string;
  readonly speed?: Speed;
  /** What must be known before it is done. */
  readonly caution?: string;
}

/** A zone of a tooth as its steps need it. */
export interface ZoneCut {
  readonly zone: Zone;
  readonly removeMm: number;
  readonly alignMm: number;
  readonly groove: Groove;
}

/** What the steps of a tooth are made of. */
export interface ToothCut {
  readonly tooth: Fdi;
  readonly design: Design;
  readonly zones: readonly ZoneCut[];
  readonly told: TargetTold;
  readonly roles: Roles;
}

const mm = (v: number, digits = 2) => v.toFixed(digits);
const covers = (d: Design, what: Design['covers'][number]) => d.covers.includes(what);
const zoneOf = (t: ToothCut, zone: Zone) => t.zones.find((z) => z.zone === zone);
const goes = (t: ToothCut) => t.told.zones.some((z) => z.most > NOTHING_MM);
/** What lacks in the tray is said where it is wanted. */
const lacks = (what: string) => `The tray has no ${what}; put one in, or say what you take instead.`;

const ZONE_WORDS: Readonly<Record<Zone, string>> = {
  cervical: 'cervical third',
  middle: 'middle third',
  incisal: 'incisal third',
  edge: 'edge',
};

/** What comes before the first cut. */
export function before(t: ToothCut): CutStep[] {
  if (!goes(t)) return [];
  return [
    {
      title: 'Guard the neighbours',
      brief: 'metal matrix at both sides',
      detail:
        'A thin metal matrix at both sides, wedged; look that it lies against the neighbour and not against this tooth.',
      places: ['neighbours'],
    },
  ];
}

export const mockUpOn = (t: ToothCut): CutStep => ({
  title: 'Seat the mock-up',
  brief: 'whole, clean, down on its stops',
  detail: 'Whole, clean of excess and down on its stops; every groove is measured from its surface.',
  places: ['all round'],
  ...(t.zones.some((z) => z.alignMm > PROUD_MM) && {
    caution: 'The tooth stands proud of the plan in places: there the mock-up is worn through or missing.',
  }),
});

export const mockUpOff = (): CutStep => ({
  title: 'Take the mock-up off',
  detail: 'Blow it dry. Pencil lines are the floors of the grooves; where there is none nothing is cut.',
  places: ['all round'],
});

/** Grooves of some zones, each followed by its pencil. */
export function grooveSteps(t: ToothCut, zones: readonly Zone[]): CutStep[] {
  return zones.flatMap((zone): CutStep[] => {
    const own = zoneOf(t, zone);
    if (!own) return [];
    const { groove: g } = own;
    const engagement = g.kind === 'cut' ? g.engagement : g.nearest;
    if (!engagement) {
      if (own.removeMm <= NOTHING_MM) return [];
      return [
        { title: `No groove in the ${ZONE_WORDS[zone]}`, detail: g.kind === 'none' ? g.why : '', places: [zone] },
      ];
    }
    const rest = g.kind === 'none' ? ` ${g.why}` : '';
    const hand = g.kind === 'cut' && g.byHand ? ` ${g.byHand}` : '';
    return [
      {
        title: `Grooves, ${ZONE_WORDS[zone]}`,
        detail: `${g.grooves}; ${engagement.how}${layOf(engagement)}. Pencil their floors.${rest}${hand}`,
        places: [zone],
        bur: engagement.bur,
        how: engagement.how,
        depthMm: engagement.depthMm,
        ...(g.grooves && { grooves: g.grooves }),
        speed: 'cut',
        ...(g.first && { caution: g.first }),
      },
    ];
  });
}

/** Held so much steeper, degrees, over the length of a third, mm: what a hand is off by easily. House values. */
const OFF = { deg: 5, backMm: 3 } as const;

/** How a taper is held, and what it does when it is not. */
function layOf({ bur, how, depthMm }: Engagement): string {
  if (!hasTip(bur.shape) || how === 'sunk to its working length') return '';
  const deeper = tiltedDepth(bur, how, OFF.deg - leanDeg(bur), OFF.backMm) - depthMm;
  return `, its side along the surface: held ${OFF.deg}° steeper it goes ${mm(deeper)} mm deeper ${OFF.backMm} mm behind the tip`;
}

/** What stands proud is brought into line, as an amount of its own. */
export function alignSteps(t: ToothCut): CutStep[] {
  const proud = t.zones.filter((z) => z.alignMm > PROUD_MM);
  if (proud.length === 0) return [];
  const amounts = proud.map((z) => `${ZONE_WORDS[z.zone]} ${mm(z.alignMm)}`).join(', ');
  return [
    {
      title: 'Bring it into line',
      brief: `${amounts} mm`,
      detail: `${amounts} mm, until the facial index of the plan lies on without rocking. Nothing for the ceramic yet.`,
      places: proud.map((z) => z.zone),
      ...(t.roles.join && { bur: t.roles.join }),
      depthMm: Math.max(...proud.map((z) => z.alignMm)),
      speed: 'cut',
      ...(!t.roles.join && { caution: lacks('round end') }),
    },
  ];
}

const PLANES = {
  2: { number: 'two', which: 'the half at the gum and the half at the edge' },
  3: { number: 'three', which: 'cervical, middle and incisal' },
} as const;
const planesOf = ({ design }: ToothCut) => design.facialPlanes ?? 3;

/** Grooves are joined until nothing is left of them. */
export const joinStep = (t: ToothCut): CutStep => ({
  title: 'Join the grooves',
  brief: goes(t) ? `${PLANES[planesOf(t)].number} planes, until the pencil is just gone` : 'nothing has to go',
  detail: goes(t)
    ? `In ${PLANES[planesOf(t)].number} planes, ${PLANES[planesOf(t)].which}, from one line angle to the other, until the pencil is just gone and no further.`
    : 'Nothing has to go from this tooth; roughen what is to be bonded and no more.',
  places: ['whole face'],
  ...(t.roles.join && goes(t) && { bur: t.roles.join }),
  ...(goes(t) && { speed: 'cut' as const }),
  ...(!t.roles.join && { caution: lacks('round end') }),
});

/** One of two facial planes. */
export function planeStep(t: ToothCut, half: 'cervical half' | 'incisal half'): CutStep {
  const own = zoneOf(t, half === 'cervical half' ? 'cervical' : 'incisal');
  return {
    title: half === 'cervical half' ? 'The plane of the cervical half' : 'The plane of the incisal half',
    detail: `Join its grooves into one plane that follows the curve from side to side; the index should read ${mm(own?.removeMm ?? 0)} mm of tooth gone, and ${mm(zoneOf(t, 'middle')?.removeMm ?? 0)} where the planes meet.`,
    places: [half],
    ...(t.roles.join && { bur: t.roles.join }),
    speed: 'cut',
    ...(!t.roles.join && { caution: lacks('round end') }),
  };
}

/** The edge, as its design says. */
export function edgeStep(t: ToothCut): CutStep[] {
  const { edge, palatal } = t.design;
  const remove = zoneOf(t, 'edge')?.removeMm ?? 0;
  if (edge.kind === 'left' && remove <= NOTHING_MM) return [];
  const cusps = isPremolar(t.tooth) && edge.kind === 'thickness';
  const goal = cusps
    ? `${mm(edge.mm, 1)} mm under the planned cusps${covers(t.design, 'palatal') ? '' : ', the outer one alone'}`
    : edge.kind === 'thickness'
      ? `${mm(edge.mm, 1)} mm under the planned edge`
      : edge.kind === 'flatten'
        ? 'flat, across the whole width, without loss of height where the plan is longer'
        : 'as far as it stands beyond the plan';
  return [
    {
      title: cusps ? 'Reduce the cusps' : edge.kind === 'flatten' ? 'Flatten the edge' : 'Reduce the edge',
      brief: `${remove > NOTHING_MM ? `${mm(remove)} mm, ` : ''}${goal}`,
      detail: `${remove > NOTHING_MM ? `${mm(remove)} mm of tooth goes: ` : 'Nothing of its height goes: '}${goal}. ${cusps ? 'Follow their slopes: a flat cut opens the pulp under the groove between them. ' : ''}${sentence(palatal)}`,
      places: ['edge'],
      ...(t.roles.join && { bur: t.roles.join }),
      speed: 'cut',
    },
  ];
}

/** Retraction before the finish line is placed. */
export function cordStep({ design: { finish } }: ToothCut): CutStep[] {
  if (finish.form === 'none') return [];
  return [
    {
      title: 'Lay the cord',
      brief: 'one thin cord; the gum moves by about 0.5 mm',
      detail:
        'One thin cord all round what is covered; it moves the gum by about half a millimetre. Wait, and place the finish line by what is seen then.',
      places: ['finish line'],
      caution: 'Look at the tissue first: where it bleeds, heal it before the margin is placed.',
    },
  ];
}

/** A ball traces the finish line to a depth. */
export function traceStep(t: ToothCut): CutStep[] {
  if (t.design.finish.form === 'none') return [];
  const { trace } = t.roles;
  if (!trace)
    return [
      {
        title: 'Trace the finish line',
        detail: `No ball of the tray is shallow enough for it: mark it with the tip of the round end, ${levelOf(t.design)}.`,
        places: ['finish line'],
        speed: 'cut',
      },
    ];
  return [
    {
      title: 'Trace the finish line',
      detail: `${sentence(levelOf(t.design))} From one side to the other in one movement, the ball down to its shank and no deeper.`,
      places: ['finish line'],
      bur: trace.bur,
      how: trace.how,
      depthMm: trace.depthMm,
      speed: 'cut',
    },
  ];
}

/** Where the finish line runs, in words. */
export function levelOf({ finish: { form, sides = form, behind = form, belowGumMm }, wrap }: Design): string {
  if (form === 'none') return 'no finish line';
  const level =
    belowGumMm > 0
      ? `${mm(belowGumMm, 1)} mm below the gum`
      : belowGumMm < 0
        ? `${mm(-belowGumMm, 1)} mm above the gum`
        : 'at the gum';
  const forms = sides === form && behind === form ? form : `${form} in front, ${sides} at the sides, ${behind} behind`;
  const over = wrap ? `; behind, ${mm(wrap.downMm, 1)} mm below the cut edge` : '';
  return `${forms}, ${level}, along its scallop${over}`;
}

/** What is done to a tooth to which something is only added. */
export const addedOrder = (t: ToothCut): CutStep[] => [
  ...before(t),
  ...alignSteps(t),
  {
    title: 'Make the surface ready',
    brief: 'cleaned, roughened, not cut',
    detail:
      'Clean it of biofilm and roughen the enamel; no depth is cut. Mark where the edge will lie, so that it is seen again.',
    places: ['whole face'],
  },
  check(t),
];

/** What a face is followed by: sides, what lies behind, finish line, rounding, polish, and the check. */
export function afterFace(t: ToothCut, { cordLies = false } = {}): CutStep[] {
  if (!goes(t)) return [check(t)];
  return [...sides(t), ...behind(t), ...(cordLies ? [] : cordStep(t)), finishLine(t), round(t), polish(t), check(t)];
}

function sides(t: ToothCut): CutStep[] {
  const { design } = t;
  if (covers(design, 'palatal')) {
    const around = design.around?.proximalMm ?? 0;
    return [
      {
        title: 'Free the sides',
        brief: `${mm(around, 1)} mm each, ${design.taperDeg ?? 0}° a wall`,
        detail: `Through both contacts with the needle, inside the enamel so that the neighbour is never touched, then ${mm(around, 1)} mm each, leaning ${design.taperDeg ?? 0}° a wall.`,
        places: ['sides'],
        ...(t.roles.contact && { bur: t.roles.contact }),
        speed: 'cut',
        ...(!t.roles.contact && { caution: lacks('needle') }),
      },
    ];
  }
  const contact = design.contact ?? 'half way';
  const how = {
    left: 'Stop in front of both contacts; they stay as they are.',
    'half way': 'Stop half way into both contacts and open them with a strip of 0.1 mm, so that dies can be sawn.',
    broken: 'Break both contacts and go on behind them, so that the ends are cleaned and seen.',
  }[contact];
  return [
    {
      title: 'The sides',
      brief: {
        left: 'in front of the contacts',
        'half way': 'half way, opened with 0.1 mm',
        broken: 'contacts broken',
      }[contact],
      detail: `${how} From the front no tooth is seen beside the restoration.`,
      places: ['sides'],
      ...(design.contact === 'broken' && t.roles.contact && { bur: t.roles.contact }),
      speed: 'cut',
    },
  ];
}

function behind(t: ToothCut): CutStep[] {
  const { wrap } = t.design;
  if (wrap && !isPremolar(t.tooth))
    return [
      {
        title: 'Over the edge',
        brief: `${mm(wrap.downMm, 1)} mm down behind it, ${mm(wrap.deepMm, 1)} mm deep`,
        detail: `A chamfer ${mm(wrap.deepMm, 1)} mm deep behind the edge, ending ${mm(wrap.downMm, 1)} mm below it; it falls away towards the edge, so that the veneer goes on from there.`,
        places: ['palatal'],
        ...(t.roles.join && { bur: t.roles.join }),
        speed: 'cut',
        caution: 'Mark where the lower teeth touch, closed and sliding: it must not end there.',
      },
    ];
  if (!covers(t.design, 'palatal')) return [];
  return [
    {
      title: 'The palatal surface',
      brief: `${mm(t.design.around?.palatalMm ?? 0, 1)} mm with the egg`,
      detail: `Hollow it by ${mm(t.design.around?.palatalMm ?? 0, 1)} mm with the egg, and cut the wall over the neck upright. ${sentence(t.design.palatal)}`,
      places: ['palatal'],
      ...(t.roles.behind && { bur: t.roles.behind }),
      speed: 'cut',
      caution: t.roles.behind
        ? 'Close the teeth on wax and measure it: a scan of closed teeth doesn’t show movements.'
        : lacks('egg'),
    },
  ];
}

const finishLine = (t: ToothCut): CutStep => ({
  title: 'The finish line',
  brief: levelOf(t.design),
  detail: `${sentence(levelOf(t.design))} One smooth line, never a knife edge; with the cord in place.`,
  places: ['finish line'],
  ...(t.roles.finishLine && { bur: t.roles.finishLine }),
  speed: 'fine',
  ...(!t.roles.finishLine && { caution: lacks('bur for it') }),
});

const round = (t: ToothCut): CutStep => ({
  title: 'Round what is sharp',
  brief: `radius ${mm(t.design.cornerMm ?? 0.2, 1)} mm at least, no undercut`,
  detail: `Edge and line angles to a radius of ${mm(t.design.cornerMm ?? 0.2, 1)} mm at least: a mill can’t cut sharper, and ceramic breaks over it. Look along the way out for undercut: ${wayWords(t.told.way)}.`,
  places: ['all round'],
  ...(t.roles.smooth && { bur: t.roles.smooth }),
  speed: 'fine',
});

const polish = (t: ToothCut): CutStep => ({
  title: 'Smooth',
  brief: '30 µm diamond, then a polisher',
  detail: 'A fine diamond of about 30 µm, then a polisher: milled ceramic asks for a smooth ground.',
  places: ['all round'],
  ...(t.roles.smooth && { bur: t.roles.smooth }),
  speed: 'polish',
  ...(!t.roles.smooth && { caution: lacks('fine bur of that shape') }),
});

function check(t: ToothCut): CutStep {
  const third = (name: 'cervical' | 'middle' | 'incisal') => {
    const own = (['mesial', 'middle', 'distal'] as const).map((part) =>
      t.told.zones.find((z) => z.zone === `${name} ${part}`),
    );
    return own.some(Boolean) ? `${ZONE_WORDS[name]} ${own.map((z) => (z ? mm(z.median) : '–')).join(' / ')}` : '';
  };
  const thirds = (['cervical', 'middle', 'incisal'] as const).map(third).filter(Boolean);
  return {
    title: 'Check with the index',
    detail:
      thirds.length > 0
        ? `Tooth gone, mesial / middle / distal: ${thirds.join('; ')} mm. Scan before the impression.`
        : 'Read every third with the index.',
    places: ['whole face'],
  };
}

const sentence = (words: string) => `${words[0]?.toUpperCase() ?? ''}${words.slice(1)}.`;
