import { DIRECT_WORDS, directSettings } from '@radiant/contract';
import { DIRECT_LIMITS, type DirectKind, type DirectSetting } from '@radiant/core';
import { useSection } from '../../data/case-context.js';
import { usePracticeSettings } from '../../data/use-practice-settings.js';
import { NumberField } from '../../ui/NumberField.js';

const STEPS: Readonly<Record<DirectSetting, { step: number; digits: number }>> = {
  shellMm: { step: 0.05, digits: 2 },
  sideMm: { step: 0.05, digits: 2 },
  enamelMm: { step: 0.05, digits: 2 },
  lobeMm: { step: 0.05, digits: 2 },
  bevelMm: { step: 0.1, digits: 1 },
  bevelBehindMm: { step: 0.1, digits: 1 },
  troughMm: { step: 0.1, digits: 1 },
  wallMm: { step: 0.1, digits: 1 },
  partMm: { step: 0.1, digits: 1 },
  keyFrontMm: { step: 0.1, digits: 1 },
  keyUpMm: { step: 0.5, digits: 1 },
  cureMm: { step: 0.1, digits: 1 },
  lampMw: { step: 50, digits: 0 },
  seconds: { step: 1, digits: 0 },
  portionMm3: { step: 10, digits: 0 },
};
/** Which settings speak of some kinds of work alone. */
const ONLY: Readonly<Partial<Record<DirectSetting, readonly DirectKind[]>>> = {
  bevelMm: ['corner', 'neck'],
  bevelBehindMm: ['corner'],
  troughMm: ['worn'],
  wallMm: ['worn'],
  // A dent in the face has no shell, no side and no lobes.
  shellMm: ['corner', 'gap', 'worn', 'addition'],
  sideMm: ['corner', 'gap', 'worn', 'addition'],
  lobeMm: ['corner', 'gap', 'worn', 'addition'],
};

/** How thick the layers are, and what the lamp gives. */
export function SettingFields({ mayWrite, kind }: { mayWrite: boolean; kind: DirectKind }) {
  const { data, set, store } = useSection('direct');
  const house = usePracticeSettings();
  const now = directSettings(data);
  const usual = directSettings(house.shown?.composite ?? {});
  const differs = (Object.keys(STEPS) as DirectSetting[]).some((k) => now[k] !== usual[k]);
  return (
    <section aria-label="Thicknesses and lamp">
      <h2 className="title mb-2">Thicknesses and lamp</h2>
      {(Object.keys(STEPS) as DirectSetting[])
        .filter((k) => ONLY[k]?.includes(kind) ?? true)
        .map((k) => (
          <NumberField
            key={k}
            label={DIRECT_WORDS[k].words}
            unit={DIRECT_WORDS[k].unit}
            value={now[k]}
            min={DIRECT_LIMITS[k].min}
            max={DIRECT_LIMITS[k].max}
            {...STEPS[k]}
            disabled={!mayWrite}
            onChange={(v) => set({ ...data, [k]: v }, `direct ${k}`)}
            onDone={() => store.endGroup()}
          />
        ))}
      {mayWrite && house.shown && differs && (
        <button type="button" className="how text-note" onClick={() => house.set({ composite: now })}>
          New cases of the house begin so
        </button>
      )}
      {house.refusal && <p className="mt-1 text-note text-stop">{house.refusal}</p>}
    </section>
  );
}
