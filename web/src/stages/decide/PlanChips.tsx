import { useSection } from '../../data/case-context.js';

/** What the bench shows: one tooth's options, or two whole plans. */
export type DecideBench = 'tooth' | 'plans';

/** One tooth or both plans; a second plan is begun as a copy of the first, and let go again. */
export function PlanChips({
  bench,
  setBench,
  mayWrite,
}: {
  bench: DecideBench;
  setBench: (bench: DecideBench) => void;
  mayWrite: boolean;
}) {
  const { data, set } = useSection('decide');
  const now = data.plan ?? 'A';
  return (
    <fieldset className="absolute top-3.5 left-4 z-10 flex flex-wrap gap-1.5" aria-label="What is shown">
      <button
        type="button"
        className="chip chip-flat"
        aria-pressed={bench === 'tooth' || !data.other}
        onClick={() => setBench('tooth')}
      >
        tooth by tooth{data.other ? `, plan ${now}` : ''}
      </button>
      {data.other ? (
        <button
          type="button"
          className="chip chip-flat"
          aria-pressed={bench === 'plans'}
          onClick={() => setBench('plans')}
        >
          plan A against plan B
        </button>
      ) : (
        <button
          type="button"
          className="chip chip-flat"
          disabled={!mayWrite || data.choices.length === 0}
          title="Keeps what is chosen as plan A, and begins plan B as a copy of it"
          onClick={() => {
            set({ ...data, plan: 'B', other: data.choices });
            setBench('plans');
          }}
        >
          begin a plan B
        </button>
      )}
      {data.other && mayWrite && (
        <button
          type="button"
          className="chip chip-flat"
          onClick={() => {
            set({ ...data, plan: null, other: null });
            setBench('tooth');
          }}
        >
          let plan {now === 'A' ? 'B' : 'A'} go
        </button>
      )}
    </fieldset>
  );
}
