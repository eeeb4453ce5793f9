import { VISIBLE } from '../colour/lab.js';
import { ceramicOf } from '../material/ceramics.js';
import type { CeramicId } from '../material/ids.js';
import { COMMON_PRACTICE, published, type Source } from '../working/working.js';
import type { OptionFigures, ToothFacts } from './facts.js';
import { RULE_LIMITS, type RuleId, type RuleLimitRange } from './ids.js';
import { isCrown, isVeneer, type Option, optionOf } from './options.js';
import { STRENGTH_SOURCE, strengthOf } from './strength.js';

/** What a rule does to an option: speaks for it, against it, or asks for a written reason before it is chosen. */
export type Effect = 'for' | 'against' | 'reason asked' | 'note';

/** What a rule says of one option on one tooth. */
export interface Verdict {
  readonly effect: Effect;
  readonly says: string;
}

/** A rule of the house: what it looks at, why, and where it comes from. Each can be switched off. */
export interface Rule {
  readonly id: RuleId;
  readonly title: string;
  readonly reason: string;
  readonly source: Source;
  /** The number on which it turns, where there is one: a house may set its own. */
  readonly limit?: RuleLimitRange;
  /** Nothing where it has nothing to say. */
  readonly speaks: (f: ToothFacts, o: Option, x: OptionFigures, limit: number) => Verdict | undefined;
}

const pro = (says: string): Verdict => ({ effect: 'for', says });
const con = (says: string): Verdict => ({ effect: 'against', says });
const asks = (says: string): Verdict => ({ effect: 'reason asked', says });
const note = (says: string): Verdict => ({ effect: 'note', says });
const mm = (v: number) => `${v.toFixed(1)} mm`;
const percent = (v: number) => `${(100 * v).toFixed(0)} %`;
/** Less than this that stands proud is not told, mm³: it is within the scan's error. House value. */
const PROUD_MM3 = 0.5;
const made = (o: Option) => o.made !== 'nothing';

/** The rules of the house, in the order in which they are thought of. Common practice where no source is named. */
export const RULES: readonly Rule[] = [
  {
    id: 'additive-first',
    title: 'additive first',
    reason: 'Sound tooth and the bond to enamel are worth keeping; what is not cut can still be cut later.',
    source: COMMON_PRACTICE,
    limit: RULE_LIMITS['additive-first'],
    speaks: (f, o, x, limit) => {
      if (o.additive && made(o))
        return pro(
          x.removedMm3 > PROUD_MM3
            ? `Only added, but for ${x.removedMm3.toFixed(0)} mm³ that stand proud of the plan.`
            : 'Only added: the tooth stays whole.',
        );
      if (!f.broken && x.removedShare > limit)
        return f.dark
          ? note(`Takes ${percent(x.removedShare)} of the crown.`)
          : con(`Takes ${percent(x.removedShare)} of a crown that is still sound.`);
      return undefined;
    },
  },
  {
    id: 'broken-down',
    title: 'a crown where the tooth is broken down',
    reason: 'Where little sound tooth is left a crown holds it together, and costs little that is not lost already.',
    source: COMMON_PRACTICE,
    speaks: (f, o) => {
      if (!f.broken || !isCrown(o)) return undefined;
      return pro(
        f.crowned
          ? 'It is crowned already: a new crown takes little more.'
          : 'It is broken down: a crown holds it together.',
      );
    },
  },
  {
    id: 'enamel-to-bond',
    title: 'bonding wants enamel',
    reason: 'What is bonded to dentin comes off more often than what is bonded to enamel.',
    source: COMMON_PRACTICE,
    limit: RULE_LIMITS['enamel-to-bond'],
    speaks: (_, o, x, limit) =>
      isVeneer(o) && x.enamelShare !== undefined && x.enamelShare < limit
        ? con(`Only ${percent(x.enamelShare)} of what is cut of the face would be enamel.`)
        : undefined,
  },
  {
    id: 'dry-to-bond',
    title: 'bond or cement',
    reason: 'Bonding wants a dry field and no bleeding; where those fail, what holds by its own form can be cemented.',
    source: COMMON_PRACTICE,
    speaks: (f, o) => {
      if (!f.bleeding && f.dry !== false) return undefined;
      const why = f.dry === false ? 'It can’t be kept dry' : 'The gum bleeds';
      if (o.holds === 'form') return pro(`${why}: this one may be cemented.`);
      return o.holds === 'bond' ? con(`${why}: it has to be bonded. Heal and isolate first.`) : undefined;
    },
  },
  {
    id: 'thin-palatal-room',
    title: 'deep bite and thin palatal room',
    reason:
      'Behind the upper front teeth zirconia is made thinnest; glass-ceramic breaks where there is no room for it.',
    source: COMMON_PRACTICE,
    limit: RULE_LIMITS['thin-palatal-room'],
    speaks: (f, o, _, limit) => {
      if (f.palatalRoomMm === undefined || f.palatalRoomMm >= limit || !isCrown(o)) return undefined;
      const room = `${mm(Math.max(0, f.palatalRoomMm))} of room behind`;
      return o.made === 'zirconia'
        ? pro(`${room}: zirconia is made thin.`)
        : con(`${room}: more would have to be cut there.`);
    },
  },
  {
    id: 'bite-lacks',
    title: 'room in the bite',
    reason: 'A restoration that has not the room its material needs breaks, or lifts the bite.',
    source: COMMON_PRACTICE,
    limit: RULE_LIMITS['bite-lacks'],
    speaks: (_, o, x, limit) =>
      made(o) && x.lacksMm !== undefined && x.lacksMm > limit
        ? con(`The bite lacks ${mm(x.lacksMm)} of what it needs: more has to be cut there.`)
        : undefined,
  },
  {
    id: 'dark-stump',
    title: 'a stump that shows',
    reason:
      'Cutting deeper for a thicker veneer takes the enamel that hides the stain; past a point an opaque crown is the honest answer.',
    source: published('the limits of what is seen and taken: Paravina et al. 2015, J Esthet Restor Dent 27:S1'),
    limit: RULE_LIMITS['dark-stump'],
    speaks: (f, o, x, limit) => {
      if (x.dE === undefined) {
        if (!f.dark || !made(o)) return undefined;
        if (o.id === 'direct') return con('The stump is dark: composite hides little in what is only added.');
        return isVeneer(o)
          ? con('The stump is dark: read its colour in match before a veneer is promised.')
          : undefined;
      }
      if (x.dE > limit) return con(`Predicted ΔE00 ${x.dE.toFixed(1)} to the wanted shade: it will be seen.`);
      return f.dark ? pro(`Hides the dark stump: predicted ΔE00 ${x.dE.toFixed(1)}.`) : undefined;
    },
  },
  {
    id: 'no-prep-colour',
    title: 'a no-prep veneer changes little colour',
    reason: 'A few tenths of ceramic can’t cover much; its edge is slightly bulky and stays at or above the gum.',
    source: COMMON_PRACTICE,
    limit: RULE_LIMITS['no-prep-colour'],
    speaks: (f, o, _, limit) => {
      if (o.id !== 'no-prep') return undefined;
      return f.dark || (f.nowDE ?? 0) > limit
        ? con('Too thin for so much change of colour; its edge stays at or above the gum.')
        : note('Slightly bulky at the gum: its edge stays at or above it.');
    },
  },
  {
    id: 'the-wish',
    title: 'what the patient wants',
    reason: 'A treatment that does not bring what was wished is no saving.',
    source: COMMON_PRACTICE,
    speaks: (f, o) => {
      if (!f.formWished || made(o)) return undefined;
      return con(
        o.id === 'bleach' ? 'Another form is wished: bleaching changes colour alone.' : 'Another form is wished.',
      );
    },
  },
  {
    id: 'bleach-first',
    title: 'bleach before anything is made',
    reason: 'A lighter tooth asks for less ceramic; bleaching afterwards leaves the ceramic behind.',
    source: COMMON_PRACTICE,
    speaks: (f, o) => {
      if (o.id === 'bleach')
        return f.lighter && !f.crowned ? pro('Lighter is wished, and nothing is cut for it.') : undefined;
      return o.id === 'none' && f.lighter ? con('Lighter is wished.') : undefined;
    },
  },
  {
    id: 'translucency',
    title: 'how clear the ceramic is',
    reason:
      'Medium translucency is usual over a normal stump; a clearer ceramic lets it through, a denser one looks flatter.',
    source: COMMON_PRACTICE,
    speaks: (_, __, x) => {
      const [usual, ...others] = x.ceramics ?? [];
      if (!usual || others.length === 0 || !x.ceramic) return undefined;
      const name = (id: CeramicId) => ceramicOf(id).name;
      if (x.ceramic === usual.ceramic)
        return usual.dE <= VISIBLE.notTaken
          ? note(`In ${name(usual.ceramic)}, the usual one: it does over this stump.`)
          : undefined;
      return (x.dE ?? Infinity) <= VISIBLE.notTaken
        ? note(
            `In ${name(x.ceramic)}: ${name(usual.ceramic)} would let the stump through (ΔE00 ${usual.dE.toFixed(1)}).`,
          )
        : undefined;
    },
  },
  {
    id: 'adjustable-stain',
    title: 'a shade that can follow',
    reason: 'Surface stain can be polished back where the patient may whiten later.',
    source: COMMON_PRACTICE,
    speaks: (f, o) => {
      if (!f.bleachLater || !made(o)) return undefined;
      if (o.made === 'composite') return note('Is replaced or covered when the teeth are lighter.');
      return o.made === 'glass-ceramic'
        ? note('Leave its shade in surface stain, to be polished back after bleaching.')
        : undefined;
    },
  },
  {
    id: 'same-centrals',
    title: 'two centrals in one material and one plan',
    reason: 'Two materials beside each other in the middle never look alike in all light.',
    source: COMMON_PRACTICE,
    speaks: (f, o) => {
      if (f.otherCentral === undefined) return undefined;
      const other = optionOf(f.otherCentral);
      if (!made(o) || !made(other)) return undefined;
      return o.made === other.made
        ? pro('In the same material as the other central.')
        : con(`The other central is planned as ${other.name}.`);
    },
  },
  {
    id: 'beside-a-crown',
    title: 'a veneer beside a crown in the same material',
    reason: 'Beside each other the same ceramic matches best.',
    source: COMMON_PRACTICE,
    speaks: (f, o) => {
      const crowns = f.neighbours.map(optionOf).filter(isCrown);
      if (!isVeneer(o) || crowns.length === 0) return undefined;
      return crowns.some((c) => c.made === o.made)
        ? pro('In the ceramic of the crown beside it.')
        : con(`The crown beside it is of ${crowns[0]?.made}.`);
    },
  },
  {
    id: 'grinding',
    title: 'clenching and grinding',
    reason: 'A weak ceramic chips at the edge; a night guard and a thicker edge carry the load.',
    source: COMMON_PRACTICE,
    speaks: (f, o) => {
      if (!f.grinding || !made(o)) return undefined;
      if (o.made === 'feldspathic')
        return con('Grinds: layered feldspathic is the weakest ceramic; a night guard at least.');
      if (o.made === 'composite') return note('Grinds: its edges chip and are repaired; a night guard.');
      return note('Grinds: a night guard, and 2 mm at the edge.');
    },
  },
  {
    id: 'acid',
    title: 'acid',
    reason: 'Acid goes on at every margin that lies in dentin; enamel is thinner than the norm.',
    source: COMMON_PRACTICE,
    speaks: (f, o) => {
      if (!f.acid) return undefined;
      return o.additive && made(o) ? pro('Acid has thinned the enamel: nothing more is taken of it.') : undefined;
    },
  },
  {
    id: 'child',
    title: 'a child’s tooth',
    reason: 'The pulp is large, and the gum line still moves: margins come into view.',
    source: COMMON_PRACTICE,
    limit: RULE_LIMITS.child,
    speaks: (f, o, _, limit) => {
      if (f.ageYears === undefined || f.ageYears >= limit) return undefined;
      if (o.id === 'direct') return pro('Can follow while the gum line still moves.');
      return isCrown(o) || isVeneer(o)
        ? asks(`At ${f.ageYears} the pulp is large and the gum line moves: wait, or add composite.`)
        : undefined;
    },
  },
  {
    id: 'gap-schools',
    title: 'closing a gap: two schools',
    reason: 'Porcelain keeps its shine and its colour; composite costs no tooth and is repaired in the mouth.',
    source: COMMON_PRACTICE,
    speaks: (f, o, x) => {
      if (!f.gaps || !(o.id === 'direct' || isVeneer(o))) return undefined;
      return o.id === 'direct'
        ? note(`Closes the gap in one visit with nothing cut; ${o.upkeep}.`)
        : note(`Closes the gap in ${o.visits} visits for ${x.removedMm3.toFixed(0)} mm³ of tooth; ${o.upkeep}.`);
    },
  },
  {
    id: 'came-off',
    title: 'retention first',
    reason:
      'A splinted provisional that came off says that the preparation holds too little, and the final crown is warned.',
    source: COMMON_PRACTICE,
    speaks: (f, o) => {
      if (!f.cameOff || !made(o)) return undefined;
      return o.holds === 'form'
        ? con('The provisional came off: longer walls, grooves or a build-up before it is cemented.')
        : note('The provisional came off: it is held by the bond alone; isolate well.');
    },
  },
  {
    id: 'short-walls',
    title: 'height of the walls',
    reason: 'Under 3 mm of wall little holds a crown of a front tooth or premolar.',
    source: published('Goodacre, Campagni, Aquilino 2001, J Prosthet Dent 85:363'),
    limit: RULE_LIMITS['short-walls'],
    speaks: (_, o, x, limit) =>
      o.holds === 'form' && x.wallMm !== undefined && x.wallMm < limit
        ? con(`Its walls are ${mm(x.wallMm)} high: bond it, or lengthen the tooth.`)
        : undefined,
  },
  {
    id: 'least-thickness',
    title: 'thinner than its material is made',
    reason: 'Thinner than the maker allows it breaks, and nobody answers for it.',
    source: COMMON_PRACTICE,
    speaks: (_, o, x) =>
      made(o) && x.leastMm && x.leastMm.planned < x.leastMm.material - 1e-9
        ? asks(`${mm(x.leastMm.planned)} are planned where its material is made from ${mm(x.leastMm.material)}.`)
        : undefined,
  },
  {
    id: 'way-out',
    title: 'what does not come off',
    reason: 'What is hidden on the way out has to stay: the restoration is thin there, or ends early.',
    source: COMMON_PRACTICE,
    limit: RULE_LIMITS['way-out'],
    speaks: (_, __, x, limit) =>
      x.hiddenMm !== undefined && x.hiddenMm > limit
        ? con(`Up to ${mm(x.hiddenMm)} would stay standing on its way out.`)
        : undefined,
  },
  {
    id: 'permitted-use',
    title: 'what the ceramic may be used for',
    reason: 'A ceramic of the two weakest classes carries load only through its bond; cemented it breaks.',
    source: STRENGTH_SOURCE,
    speaks: (f, o) => {
      const own = strengthOf(o);
      return own?.bondOnly && f.dry === false
        ? asks(`Class ${own.number} (${own.mpa} MPa) has to be bonded, and the tooth can’t be kept dry.`)
        : undefined;
    },
  },
  {
    id: 'margin-under',
    title: 'a margin under the gum',
    reason:
      'Under the gum it is harder to keep dry, to record and to clean; nearer to the bone the gum stays inflamed.',
    source: COMMON_PRACTICE,
    limit: RULE_LIMITS['margin-under'],
    speaks: (_, o, x, limit) =>
      made(o) && x.margin && x.margin.underMm > limit
        ? con(`Its margin lies up to ${mm(x.margin.underMm)} under the gum.`)
        : undefined,
  },
];
