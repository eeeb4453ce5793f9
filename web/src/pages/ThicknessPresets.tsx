import type { OwnThicknessInput } from '@radiant/contract';
import {
  DESIGNS,
  type Design,
  limitsAt,
  onlyAdded,
  WISHED_PLACES,
  WISHED_WORDS,
  type WishedPlace,
  wishedAt,
  wishOf,
  withThickness,
} from '@radiant/core';
import { number } from '../ui/format.js';
import { shown } from '../ui/NumberInput.js';
import { NumberOnceDone } from '../ui/NumberOnceDone.js';

const THIRDS = ['cervical', 'middle', 'incisal'] as const;
/** How thick the house makes each design, beside what is usual. */
export function ThicknessPresets({
  thickness,
  set,
}: {
  thickness: readonly OwnThicknessInput[];
  set: (next: OwnThicknessInput[]) => void;
}) {
  const designs: readonly Design[] = DESIGNS.filter((d) => !onlyAdded(d));
  return (
    <section aria-label="Thicknesses of the house">
      <h2 className="title">Thicknesses of the house, mm</h2>
      <p className="mb-3 text-note text-ink-2">
        A case begins with them; what is usual stays in view. Cases that somebody has worked on in <i>reduce</i> keep
        theirs.
      </p>
      <table className="border-collapse text-note" aria-label="Thicknesses of the house">
        <thead className="text-left text-tiny text-ink-2">
          <tr>
            <th scope="col" className="font-normal">
              design
            </th>
            {WISHED_PLACES.map((p) => (
              <th key={p} scope="col" className="pl-3 font-normal">
                {WISHED_WORDS[p][0]}
                {WISHED_WORDS[p][1] === '°' && ', °'}
              </th>
            ))}
            <th scope="col" className="pl-6 font-normal">
              usual
            </th>
          </tr>
        </thead>
        <tbody>
          {designs.map((usual) => {
            const own = thickness.find((t) => t.design === usual.id);
            const design = own ? withThickness(usual, own) : usual;
            const others = thickness.filter((t) => t.design !== usual.id);
            const change = (place: WishedPlace, mm: number) => set([...others, wishOf(design, place, mm)]);
            const thin = THIRDS.filter((p) => design.needs[p] < design.leastMm);
            return (
              <tr key={usual.id} className="border-t border-hair">
                <th scope="row" className="py-1.5 text-left font-normal">
                  {usual.name}
                  {thin.length > 0 && (
                    <span className="block max-w-[34ch] text-tiny text-stop">
                      thinner than {number(design.leastMm, 1)} mm, the least of its material: {thin.join(', ')}
                    </span>
                  )}
                </th>
                {WISHED_PLACES.map((p) => {
                  const mm = wishedAt(design, p);
                  return (
                    <td key={p} className="pl-3">
                      {mm === undefined ? (
                        <span className="text-ink-3">–</span>
                      ) : (
                        <NumberOnceDone
                          label={`${usual.name}, ${WISHED_WORDS[p].join(', ')}`}
                          className={`field h-8 w-[52px] px-1.5 text-right ${mm === wishedAt(usual, p) ? '' : 'font-semibold'}`}
                          value={mm}
                          min={limitsAt(p).min}
                          max={limitsAt(p).max}
                          step={0.1}
                          digits={1}
                          unit={WISHED_WORDS[p][1]}
                          onTaken={(v) => change(p, v)}
                        />
                      )}
                    </td>
                  );
                })}
                <td className="pl-6 text-ink-2">
                  {WISHED_PLACES.flatMap((p) => wishedAt(usual, p) ?? [])
                    .map((v) => shown(v, 1))
                    .join(' · ')}
                  {own && (
                    <button type="button" className="how ml-3" onClick={() => set(others)}>
                      take the usual<span className="sr-only"> of {usual.name}</span>
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
