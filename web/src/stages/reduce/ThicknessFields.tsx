import type { ReduceSection } from '@radiant/contract';
import {
  ATTACHMENT,
  type Design,
  type DesignId,
  designOf,
  limitsAt,
  onlyAdded,
  restorationOf,
  WISHED_PLACES,
  type WishedPlace,
  wishedAt,
  wishOf,
} from '@radiant/core';
import { useCase, useSection } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { NumberInput } from '../../ui/NumberInput.js';

/** Half to one millimetre below the gum is usual where it is seen. Common practice, no source. */
const DEEP_MM = 1;
const THIRDS = ['cervical', 'middle', 'incisal'] as const;

/** How thick the restoration is to be, place by place, beside what is usual for its design. */
export function ThicknessFields() {
  const { tooth } = useCase();
  const { data, set, store } = useSection('reduce');
  const mayWrite = useMayWrite('reduce');
  const { design } = restorationOf(tooth, data);
  const usual: Design = designOf(design.id as DesignId);
  const places = WISHED_PLACES.filter((p) => wishedAt(usual, p) !== undefined);
  const own = data.thickness?.some((t) => t.design === design.id) ?? false;
  const change = (place: WishedPlace, mm: number) => set(withOwn(data, design, place, mm), `thickness ${place}`);
  const thin = THIRDS.filter((p) => design.needs[p] < design.leastMm);
  // Where something is only added there is no thickness to cut for.
  if (onlyAdded(design)) return null;
  return (
    <fieldset className="mb-4" disabled={!mayWrite} aria-label="Thickness">
      <p className="mb-1 text-tiny text-ink-2">Thickness and finish line, mm</p>
      <div className="flex gap-2">
        {places.map((p) => (
          <div key={p} className="min-w-0 flex-1 text-tiny text-ink-2">
            {p === 'margin' ? 'below gum' : p}
            <NumberInput
              label={p === 'margin' ? 'Finish line below the gum' : `Thickness, ${p}`}
              className="field mt-0.5 h-8 w-full px-2 text-right text-note text-ink"
              value={wishedAt(design, p) ?? null}
              min={limitsAt(p).min}
              max={limitsAt(p).max}
              step={0.1}
              digits={1}
              unit="mm"
              disabled={!mayWrite}
              onChange={(mm) => mm !== null && change(p, mm)}
              onDone={() => store.endGroup()}
            />
          </div>
        ))}
      </div>
      {own && (
        <p className="mt-1.5 text-tiny text-ink-2">
          usual {places.map((p) => number(wishedAt(usual, p) ?? 0, 1)).join(' · ')}{' '}
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

/** The section with one place otherwise; the design's others stay as they are. */
const withOwn = (data: ReduceSection, design: Design, place: WishedPlace, mm: number): ReduceSection => ({
  ...data,
  thickness: [...(data.thickness ?? []).filter((t) => t.design !== design.id), wishOf(design, place, mm)],
});
