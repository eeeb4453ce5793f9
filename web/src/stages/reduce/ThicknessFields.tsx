import type { OwnThicknessInput, ReduceSection } from '@radiant/contract';
import { type Design, type DesignId, designOf, onlyAdded, restorationOf, THICKNESS_LIMITS } from '@radiant/core';
import { useCase, useSection } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { NumberInput } from '../../ui/NumberInput.js';

const PLACES = ['cervical', 'middle', 'incisal'] as const;
type Place = (typeof PLACES)[number] | 'edge';

const thicknessAt = (design: Design, place: Place): number | undefined =>
  place === 'edge' ? (design.edge.kind === 'thickness' ? design.edge.mm : undefined) : design.needs[place];

/** How thick the restoration is to be, place by place, beside what is usual for its design. */
export function ThicknessFields() {
  const { tooth } = useCase();
  const { data, set, store } = useSection('reduce');
  const mayWrite = useMayWrite('reduce');
  const { design } = restorationOf(tooth, data);
  const usual: Design = designOf(design.id as DesignId);
  const places = ([...PLACES, 'edge'] as const).filter((p) => thicknessAt(usual, p) !== undefined);
  const own = data.thickness?.some((t) => t.design === design.id) ?? false;
  const change = (place: Place, mm: number) => set(withOwn(data, design, place, mm), `thickness ${place}`);
  const thin = PLACES.filter((p) => design.needs[p] < design.leastMm);
  // Where something is only added there is no thickness to cut for.
  if (onlyAdded(design)) return null;
  return (
    <fieldset className="mb-4" disabled={!mayWrite} aria-label="Thickness">
      <div className="flex gap-2">
        {places.map((p) => (
          <div key={p} className="min-w-0 flex-1 text-tiny text-ink-2">
            {p}, mm
            <NumberInput
              label={`Thickness, ${p}`}
              className="field mt-0.5 h-8 w-full px-2 text-right text-note text-ink"
              value={thicknessAt(design, p) ?? null}
              min={THICKNESS_LIMITS.min}
              max={THICKNESS_LIMITS.max}
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
          usual {places.map((p) => number(thicknessAt(usual, p) ?? 0, 1)).join(' · ')}{' '}
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
    </fieldset>
  );
}

/** The section with a thickness of one place; the design's others stay as they are. */
function withOwn(data: ReduceSection, design: Design, place: Place, mm: number): ReduceSection {
  const { needs, edge } = design;
  const before: OwnThicknessInput = data.thickness?.find((t) => t.design === design.id) ?? {
    design: design.id as DesignId,
    ...needs,
    ...(edge.kind === 'thickness' && { edgeMm: edge.mm }),
  };
  const next = { ...before, ...(place === 'edge' ? { edgeMm: mm } : { [place]: mm }) };
  return { ...data, thickness: [...(data.thickness ?? []).filter((t) => t.design !== design.id), next] };
}
