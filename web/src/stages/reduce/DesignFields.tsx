import type { ReduceSection } from '@radiant/contract';
import { CHOSEN_DESIGNS, type DesignId, designOn, familyOf, restorationOf } from '@radiant/core';
import { useState } from 'react';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';

/** The design of all planned teeth, or of the chosen one alone. */
export function DesignFields() {
  const { tooth } = useCase();
  const { data, set } = useSection('reduce');
  const mayWrite = useMayWrite('reduce');
  const name = useToothLabel();
  const hasOwn = data.own?.some((o) => o.tooth === tooth) ?? false;
  const [wished, setWished] = useState<number>();
  const alone = hasOwn || wished === tooth;
  const now = restorationOf(tooth, data).design;
  const choose = (id: DesignId) => set(alone ? withOwn(data, tooth, id) : { ...data, design: id });
  const forAll = () => {
    setWished(undefined);
    if (hasOwn) set(withOwn(data, tooth, undefined));
  };
  return (
    <fieldset className="mb-3" disabled={!mayWrite}>
      <legend className="sr-only">Design</legend>
      <select
        aria-label={alone ? `Design of ${name(tooth)}` : 'Design of all teeth'}
        className="field mb-2 h-9 w-full px-2"
        value={now.id}
        onChange={(e) => choose(familyOf(e.target.value as DesignId))}
      >
        {CHOSEN_DESIGNS.map((d) => designOn(d.id as DesignId, tooth)).map((d) => (
          <option key={d.id} value={d.id}>
            {d.name}
          </option>
        ))}
      </select>
      <div className="flex gap-2">
        <button type="button" className="chip chip-flat" aria-pressed={!alone} onClick={forAll}>
          all teeth
        </button>
        <button type="button" className="chip chip-flat" aria-pressed={alone} onClick={() => setWished(tooth)}>
          {name(tooth)} alone
        </button>
      </div>
    </fieldset>
  );
}

/** The section with a design of one tooth's own, or without one. */
function withOwn(data: ReduceSection, tooth: number, design: DesignId | undefined): ReduceSection {
  const others = (data.own ?? []).filter((o) => o.tooth !== tooth);
  return { ...data, own: design ? [...others, { tooth, design }] : others };
}
