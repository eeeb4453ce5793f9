import type { OwnThicknessInput, ReduceSection } from '@radiant/contract';
import {
  ATTACHMENT,
  CONTACT_RULES,
  type ContactRule,
  type Design,
  type DesignId,
  designOf,
  isPremolar,
  limitsAt,
  onlyAdded,
  restorationOf,
  WISHED_PLACES,
  WISHED_WORDS,
  type WishedPlace,
  wishContact,
  wishedAt,
  wishOf,
} from '@radiant/core';
import { useCase, useSection } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { NumberInput, shown } from '../../ui/NumberInput.js';
import { VisibleZone } from './VisibleZone.js';

/** Half to one millimetre below the gum is usual where it is seen. Common practice, no source. */
const DEEP_MM = 1;
const LABELS: Partial<Record<WishedPlace, string>> = {
  margin: 'Finish line below the gum',
  slope: 'Edge, rising behind',
  taper: 'Taper of each wall',
};
/** Where a design says nothing of it. */
const USUAL_CONTACT: ContactRule = 'half way';
const CONTACT_WORDS: Readonly<Record<ContactRule, string>> = {
  left: 'left, stop in front',
  'half way': 'half way, opened by strip',
  broken: 'broken, on behind',
};
const THIRDS = ['cervical', 'middle', 'incisal'] as const;

/** How thick the restoration is to be, place by place, beside what is usual for its design. */
export function ThicknessFields() {
  const { tooth } = useCase();
  const { data, set, store } = useSection('reduce');
  const mayWrite = useMayWrite('reduce');
  const { design } = restorationOf(tooth, data);
  const usual: Design = designOf(design.id as DesignId);
  // A premolar’s cusps are followed and have no edge to slope.
  const places = WISHED_PLACES.filter((p) => wishedAt(usual, p) !== undefined && !(p === 'slope' && isPremolar(tooth)));
  const own = data.thickness?.some((t) => t.design === design.id) ?? false;
  const change = (place: WishedPlace, mm: number) =>
    set(withWish(data, wishOf(design, place, mm)), `thickness ${place}`);
  const thin = THIRDS.filter((p) => design.needs[p] < design.leastMm);
  // Where something is only added there is no thickness to cut for.
  if (onlyAdded(design)) return null;
  return (
    <fieldset className="mb-4" disabled={!mayWrite} aria-label="Thickness">
      <p className="mb-1 text-tiny text-ink-2">Thickness and finish line, mm</p>
      <div className="grid grid-cols-5 gap-2">
        {places.map((p) => (
          <div key={p} className="flex min-w-0 flex-col justify-end text-tiny text-ink-2">
            <span>
              {WISHED_WORDS[p][0]}
              {WISHED_WORDS[p][1] === '°' && ', °'}
            </span>
            <NumberInput
              label={LABELS[p] ?? `Thickness, ${p}`}
              className="field mt-0.5 h-8 w-full px-2 text-right text-note text-ink"
              value={wishedAt(design, p) ?? null}
              min={limitsAt(p).min}
              max={limitsAt(p).max}
              step={WISHED_WORDS[p][1] === '°' ? 1 : 0.1}
              digits={WISHED_WORDS[p][1] === '°' ? 0 : 1}
              unit={WISHED_WORDS[p][1]}
              disabled={!mayWrite}
              onChange={(mm) => mm !== null && change(p, mm)}
              onDone={() => store.endGroup()}
            />
          </div>
        ))}
      </div>
      {!design.around && (
        <label className="mt-2 flex items-center gap-2 text-note">
          contacts
          <select
            aria-label="Contacts"
            className="field h-8 flex-1 px-2"
            value={design.contact ?? USUAL_CONTACT}
            onChange={(e) => set(withWish(data, wishContact(design, e.target.value as ContactRule)))}
          >
            {CONTACT_RULES.map((rule) => (
              <option key={rule} value={rule}>
                {CONTACT_WORDS[rule]}
              </option>
            ))}
          </select>
        </label>
      )}
      {own && (
        <p className="mt-1.5 text-tiny text-ink-2">
          usual {places.map((p) => shown(wishedAt(usual, p) ?? 0, 1)).join(' · ')}
          {design.contact !== usual.contact && `, contacts ${usual.contact ?? USUAL_CONTACT}`}{' '}
          {mayWrite && (
            <button
              type="button"
              className="how ml-2"
              onClick={() => set({ ...data, thickness: (data.thickness ?? []).filter((t) => t.design !== design.id) })}
            >
              take the usual
            </button>
          )}
        </p>
      )}
      {thin.length > 0 && (
        <p className="finding mt-2 text-note" data-weight="stop">
          Thinner than {number(design.leastMm, 1)} mm, the least that its material is usually made in: {thin.join(', ')}
          . Ask the maker’s sheet and the laboratory, or choose another design.
        </p>
      )}
      {taperWords(design.taperDeg) && (
        <p className="finding mt-2 text-note" data-weight="watch">
          {taperWords(design.taperDeg)}
        </p>
      )}
      <VisibleZone belowGumMm={design.finish.belowGumMm} />
      {design.finish.belowGumMm > DEEP_MM && (
        <p className="finding mt-2 text-note" data-weight="watch">
          {number(design.finish.belowGumMm, 1)} mm below the gum: sound to the bone first. A margin within about{' '}
          {number(ATTACHMENT.mm, 0)} mm of it inflames ({ATTACHMENT.source.text}), and what lies so deep is hard to keep
          dry.
        </p>
      )}
    </fieldset>
  );
}

/** The section with a wish in the place of the one for the same design. */
const withWish = (data: ReduceSection, wish: OwnThicknessInput): ReduceSection => ({
  ...data,
  thickness: [...(data.thickness ?? []).filter((t) => t.design !== wish.design), wish],
});

/** Each wall; a pair is twice that. Published: Goodacre, Campagni, Aquilino 2001, 10 to 20° a pair (from memory). */
function taperWords(deg: number | undefined): string | undefined {
  if (deg === undefined || deg === 0 || (deg >= 3 && deg <= 10)) return undefined;
  return deg < 3
    ? 'Under 3° a wall a hand leaves undercuts; 3 to 5° each, 6 to 10° a pair, are usual.'
    : 'Over 10° a wall little holds the crown: add grooves, lengthen it, or bond it.';
}
