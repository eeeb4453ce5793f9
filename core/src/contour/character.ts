import type { CrownForm } from './form.js';
import type { CrownCharacter } from './parameters.js';

type Knots = readonly (readonly [number, number])[];

/**
 * How each character departs from the even form. House morphology, after the textbook range from ovoid to square
 * crowns.
 */
const TRAITS = {
  soft: {
    corner: 1.5,
    cornerFrom: -0.14,
    edgeShare: -0.045,
    neckShare: -0.035,
    power: 0.82,
    lobes: 0.6,
    ridge: 0.85,
    tip: 1.5,
  },
  square: {
    corner: 0.55,
    cornerFrom: 0.1,
    edgeShare: 0.03,
    neckShare: 0.06,
    power: 1.25,
    lobes: 1.5,
    ridge: 1.2,
    tip: 0.75,
  },
} as const;

const made = new WeakMap<CrownForm, Map<CrownCharacter, CrownForm>>();

/**
 * The form in a character. The same object each time for the same form and character, so that its surfaces are made
 * once.
 */
export function inCharacter(form: CrownForm, character: CrownCharacter): CrownForm {
  if (character === 'even') return form;
  let own = made.get(form);
  if (!own) {
    own = new Map();
    made.set(form, own);
  }
  let out = own.get(character);
  if (!out) {
    out = characterised(form, character);
    own.set(character, out);
  }
  return out;
}

function characterised(form: CrownForm, character: 'soft' | 'square'): CrownForm {
  const t = TRAITS[character];
  // Widest at the contact, where nothing changes; edge and neck are drawn in or let out.
  const border = (knots: Knots): Knots => {
    const widest = (knots.find(([, share]) => share === 1) ?? [0.25])[0];
    return knots.map(([h, share]) => {
      const by =
        h < widest ? t.edgeShare * ((widest - h) / widest) ** 2 : t.neckShare * ((h - widest) / (1 - widest)) ** 1.5;
      return [h, Math.min(1, share + by)] as const;
    });
  };
  const corner = (c: CrownForm['mesialCorner']) => ({
    drop: c.drop * t.corner,
    from: Math.min(0.9, Math.max(0.2, c.from + t.cornerFrom)),
  });
  return {
    ...form,
    mesial: border(form.mesial),
    distal: border(form.distal),
    facialPower: form.facialPower.map(
      ([h, p]) => [h, Math.max(1.75, p * (1 + (t.power - 1) * (1 - 0.5 * h)))] as const,
    ),
    mesialCorner: corner(form.mesialCorner),
    distalCorner: corner(form.distalCorner),
    lobesMm: form.lobesMm * t.lobes,
    ridgeMm: form.ridgeMm * t.ridge,
    cusps: form.cusps.map((cusp) => ({ ...cusp, tipRadius: cusp.tipRadius * t.tip })),
  };
}
