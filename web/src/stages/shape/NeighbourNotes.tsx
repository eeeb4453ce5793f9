import { contourPlan, planInputs } from '@radiant/contract';
import { type Fdi, FLOSS_MM, isUpper, TIGHT_MM, type ToothClearance } from '@radiant/core';
import { useState } from 'react';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { type ContourState, clientOf } from '../../engine/use-contour.js';
import type { Neighbours } from '../../engine/use-neighbours.js';
import { faultOf } from '../../engine/work.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { NumberInput } from '../../ui/NumberInput.js';

/** Deeper into the lower teeth than now by this is told, mm: the scans' error on both sides. */
const DEEPER_MM = 0.1;

/** What must not go unseen: crowns that pass into their neighbours or into the lower teeth, anywhere in the plan. */
export function PassingNotes({
  contour,
  neighbours,
  troubles,
}: {
  contour: ContourState;
  neighbours: Neighbours | undefined;
  /** Why a planned tooth has no crown to show. */
  troubles: ReadonlyMap<Fdi, string>;
}) {
  const shape = useSection('shape');
  const mayWrite = useMayWrite('shape');
  const name = useToothLabel();
  const sentence = useSentence();
  const [refusal, setRefusal] = useState<string>();
  if (!neighbours && troubles.size === 0) return null;
  const planned = (tooth: number) => shape.data.teeth.some((t) => t.tooth === tooth);
  const through = (neighbours?.contacts ?? []).filter((c) => c.gapMm < -TIGHT_MM);
  // Of two planned crowns that meet, one is told.
  const told = (p: ToothClearance) => !isUpper(p.tooth) && planned(p.against);
  const bites = (neighbours?.bite?.planned ?? []).filter((p) => {
    const before = neighbours?.bite?.existing.find((e) => e.tooth === p.tooth)?.spaceMm ?? Infinity;
    return p.spaceMm < -DEEPER_MM && p.spaceMm < before - DEEPER_MM && planned(p.tooth) && !told(p);
  });
  const mend = async () => {
    try {
      const made = await clientOf(contour)?.ask(contourPlan(shape.data.teeth), 'roomMade');
      if (made) shape.set({ ...shape.data, teeth: planInputs(made.plan) });
      setRefusal(undefined);
    } catch (error) {
      setRefusal(faultOf(error));
    }
  };
  const trouble = neighbours?.trouble;
  if (through.length + bites.length + troubles.size === 0 && !trouble && !refusal) return null;
  return (
    <div
      role="status"
      className="flex flex-col gap-2 text-note [&>*]:mb-0 [&>*]:rounded-r-lg [&>*]:bg-leaf [&>*]:py-1.5 [&>*]:pr-3 [&>*]:shadow-lg"
    >
      {through.map((c) => (
        <p key={c.right} className="finding" data-weight="stop">
          <b className="font-[650]">
            {name(c.right)} and {name(c.left)} pass {number(-c.gapMm, 2)} mm into each other
          </b>
          {mayWrite && isUpper(c.right) && (
            <button type="button" className="how block text-left" onClick={() => void mend()}>
              make room: slide the crowns outward, narrow them before a tooth that stays
            </button>
          )}
        </p>
      ))}
      {[...troubles].map(([tooth, why]) => (
        <p key={`none ${tooth}`} className="finding" data-weight="stop">
          <b className="font-[650]">No crown can stand for {name(tooth)}.</b> {sentence(why)} It is planned, but on
          another scan.
        </p>
      ))}
      {refusal && (
        <p className="finding" data-weight="watch">
          {refusal}
        </p>
      )}
      {trouble && (
        <p className="finding" data-weight="watch">
          Contacts and bite: {sentence(trouble.sentence)}{' '}
          <button type="button" className="how" onClick={trouble.retry}>
            try again
          </button>
        </p>
      )}
      {bites.map((b) => (
        <p key={b.tooth} className="finding" data-weight="stop">
          <b className="font-[650]">
            {name(b.tooth)} would lie {number(-b.spaceMm, 2)} mm inside {name(b.against)} in the closed bite
          </b>
          <span className="block text-ink-2">
            Shorter, thinner at the edge, or the bite is opened: the dentist’s decision.
          </span>
        </p>
      ))}
    </div>
  );
}

/** How the chosen tooth meets its neighbours, and the tightness to which all are set. */
export function NeighbourNotes({ contour, neighbours }: { contour: ContourState; neighbours: Neighbours | undefined }) {
  const { tooth } = useCase();
  const shape = useSection('shape');
  const mayWrite = useMayWrite('shape');
  const name = useToothLabel();
  const kept = shape.data.contactsMm;
  const [tight, setTight] = useState(kept ?? FLOSS_MM);
  const keep = (mm: number | null) => shape.set({ ...shape.data, contactsMm: mm });
  const [unmet, setUnmet] = useState<string>();
  if (!neighbours) return null;
  const own = neighbours.contacts.filter((c) => c.left === tooth || c.right === tooth);
  const set = async () => {
    const done = await clientOf(contour)
      ?.ask(contourPlan(shape.data.teeth), 'contactsSet', tight)
      .catch((error: unknown) => setUnmet(faultOf(error)));
    if (!done) return;
    shape.set({ ...shape.data, teeth: planInputs(done.plan) });
    setUnmet(
      done.left.length > 0
        ? `${done.left.map(([a, b]) => `${name(a)}–${name(b)}`).join(', ')} can’t be met by moving 2 mm along the arch.`
        : undefined,
    );
  };
  return (
    <section aria-label="Contacts" className="mb-4 text-note">
      {own.length > 0 && (
        <p className="mb-1.5">
          {own.map((c) => (
            <span key={c.right} className="mr-4">
              to {name(c.left === tooth ? c.right : c.left)}{' '}
              <b className="font-semibold">
                {c.gapMm > 0.005 ? `${number(c.gapMm, 2)} mm open` : `${number(-c.gapMm, 2)} mm tight`}
              </b>
            </span>
          ))}
        </p>
      )}
      {mayWrite && (
        <p className="flex items-center gap-1.5 whitespace-nowrap">
          <button type="button" className="how" onClick={() => void set()}>
            set all contacts
          </button>
          to
          <NumberInput
            label="Tightness of contacts, mm"
            className="field h-[26px] w-[56px] px-1.5 text-right"
            value={tight}
            min={-0.5}
            max={0.1}
            step={0.01}
            digits={2}
            unit="mm"
            onChange={(v) => v !== null && setTight(v)}
            onDone={() => typeof kept === 'number' && kept !== tight && keep(tight)}
          />
          mm tight
          <label className="ml-auto flex items-center gap-1.5">
            <input
              type="checkbox"
              className="h-4 w-4 accent-plum"
              checked={typeof kept === 'number'}
              onChange={(e) => keep(e.target.checked ? tight : null)}
            />
            keep
          </label>
        </p>
      )}
      {unmet && <p className="mt-1 text-removed-ink">{unmet}</p>}
    </section>
  );
}
