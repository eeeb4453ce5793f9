import {
  changedSince,
  type PlanField,
  type SetTarget,
  sameTarget,
  type TargetSince,
  type ToothPlanInput,
} from '@radiant/contract';
import { isPlannable, opposite, SCANNED_SIZE_PM_MM, sideOf } from '@radiant/core';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { type ContourState } from '../../engine/use-contour.js';
import { useProposal } from '../../engine/use-front.js';
import type { JawState } from '../../engine/use-jaws.js';
import type { Neighbours } from '../../engine/use-neighbours.js';
import type { PlannedView } from '../../engine/views.js';
import { Comments } from '../../shell/Comments.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number, signed } from '../../ui/format.js';
import { CrownFields } from './CrownFields.js';
import { NeighbourNotes } from './NeighbourNotes.js';
import { ScanUpload } from './ScanUpload.js';
import type { CrownEdits } from './use-crown-edits.js';
import type { SetToProposal } from './use-set-to-proposal.js';
import { Versions } from './Versions.js';

/** Less than this nobody sees on a row of three crowns, mm. House value. */
const SEEN_MM = 0.05;

/** Which targets are other than the ones that the crowns were set to. */
function ProposalSince({ since }: { since: readonly TargetSince[] }) {
  const name = useToothLabel();
  const words = ({ tooth, before, after }: TargetSince): string => {
    if (!before || !after) return `${name(tooth)} ${after ? 'has a target now' : 'has no target any more'}`;
    const parts = (
      [
        ['lengthMm', 'longer', 'shorter'],
        ['widthMm', 'wider', 'narrower'],
        ['zenithUpMm', 'higher at the gum', 'lower at the gum'],
      ] as const
    ).flatMap(([key, more, less]) => {
      const by = after[key] - before[key];
      return sameTarget(after[key], before[key]) ? [] : [`${number(Math.abs(by), 2)} mm ${by > 0 ? more : less}`];
    });
    return `${name(tooth)} ${parts.join(' and ')}`;
  };
  return (
    <div className="finding" data-weight="watch">
      <b className="font-[650]">The proposal has changed since</b>
      <span className="block text-note text-ink-2">
        {since.length > 0
          ? `${since.map(words).join(', ')}.`
          : 'It was written again after these crowns were set to it.'}
      </span>
    </div>
  );
}

/** The chosen tooth's planned crown in numbers, what stands beside and below it, and the versions. */
export function ToothPanel({
  contour,
  jaw,
  planned,
  neighbours,
  setToProposal,
  edits,
  tryOut,
}: {
  contour: ContourState;
  /** Of the chosen tooth. */
  jaw: JawState;
  planned: PlannedView | undefined;
  neighbours: Neighbours | undefined;
  setToProposal: SetToProposal;
  edits: CrownEdits;
  /** Shows the crown with other numbers while they are looked at. */
  tryOut: (by: Partial<ToothPlanInput> | undefined) => void;
}) {
  const { tooth } = useCase();
  const shape = useSection('shape');
  const propose = useSection('propose');
  const proposal = useProposal();
  const mayWrite = useMayWrite('shape');
  const name = useToothLabel();
  const { change, settle, takeIn, refusal, alike, setAlike } = edits;
  const own = shape.data.teeth.find((t) => t.tooth === tooth);
  const there = jaw.state === 'ready' ? jaw.arch.existing.find((e) => e.tooth === tooth) : undefined;
  const target = proposal?.targets.find((t) => t.tooth === tooth);
  /** The proposal has a target for it that is not what it is. */
  const proposed = !!target && !target.stays;
  const { setTo, proposalVersion } = shape.data;
  const since = setTo && proposal ? changedSince(setTo, proposal, propose.data.gumMm ?? 0) : [];
  const narrower = setTo && narrowerWords(setTo, shape.data.teeth);
  // Older contours say only that something was written since.
  const older = !setTo && typeof proposalVersion === 'number' && proposalVersion < propose.version;

  const notes: Partial<Record<PlanField['key'], string>> = {
    ...(there && {
      lengthMm: `scan ${number(there.lengthMm, 2)}${target ? ` · proposal ${number(target.length.value, 2)}` : ''}`,
      widthMm: `scan ${number(there.widthMm, 2)}${target ? ` · proposal ${number(target.width.value, 2)}` : ''}`,
      rotationDeg: `scan ${signed(there.rotationDeg, 1)}`,
    }),
  };
  return (
    <>
      <ReadOnlyNote section="shape" />
      <Refused sentence={shape.refusal?.detail ?? refusal ?? setToProposal.refusal} />
      <h2 className="title">{name(tooth)} · planned crown</h2>
      {there && (
        <p className="mb-3 text-note text-ink-2">
          scanned tooth measured ±{SCANNED_SIZE_PM_MM.toFixed(2)} mm; form fits it to {number(there.fitMm, 2)} mm
          {there.wearMm > 0 ? `, worn by about ${number(there.wearMm, 1)} mm` : ''}
        </p>
      )}
      {own && (since.length > 0 || older) && <ProposalSince since={since} />}
      {own ? (
        <>
          <CrownFields
            own={own}
            notes={notes}
            disabled={!mayWrite}
            onChange={change}
            onDone={() => void settle()}
            tryOut={tryOut}
          />
          {mayWrite && (
            <label className="mb-3 flex items-center gap-2 text-note">
              <input
                type="checkbox"
                className="h-4 w-4 accent-plum"
                checked={alike}
                onChange={(e) => setAlike(e.target.checked)}
              />
              change {name(opposite(tooth))} alike
            </label>
          )}
          {planned && <Amounts of={planned} />}
          <NeighbourNotes contour={contour} neighbours={neighbours} />
        </>
      ) : (
        <p className="mb-4 text-ink-2">
          {jaw.state === 'ready' && !there
            ? 'The scan has no such tooth.'
            : !proposed
              ? 'Not in the plan: this tooth stays as it is.'
              : 'No contour yet: set the crowns to the proposal.'}
        </p>
      )}
      {mayWrite && !own && there && isPlannable(tooth) && (!proposed || !setToProposal.can) && (
        <button type="button" className="btn btn-ghost mb-2 w-full" onClick={() => void takeIn()}>
          Take {name(tooth)} into the plan
        </button>
      )}
      {mayWrite && own && !proposed && (
        <button
          type="button"
          className="how mb-3 text-note"
          onClick={() => shape.set({ ...shape.data, teeth: shape.data.teeth.filter((t) => t.tooth !== tooth) })}
        >
          leave {name(tooth)} as it is
        </button>
      )}
      {mayWrite && proposed && (
        <button
          type="button"
          className={own ? 'btn btn-ghost w-full' : 'btn w-full'}
          disabled={!setToProposal.can}
          onClick={() => void setToProposal.act()}
        >
          Set the crowns to the proposal
        </button>
      )}
      {mayWrite && own && proposed && (
        <p className="mt-1.5 text-tiny text-ink-2">
          Aligned to the arch, and full enough to lie at or in front of the teeth: additive first. A row that would
          press into a tooth that stays is narrowed
          {narrower && `; the crowns are together ${narrower} than their targets`}. Undo brings your numbers back.
        </p>
      )}
      {contour.state === 'ready' && (
        <section aria-label="Scans" className="mt-6 border-t border-hair pt-4">
          <ScanUpload quiet />
        </section>
      )}
      <Versions />
      <Comments stage="shape" />
    </>
  );
}

/** How much narrower the crowns of a side stand than their targets; nothing below what anybody sees. */
function narrowerWords(setTo: readonly SetTarget[], teeth: readonly ToothPlanInput[]): string | undefined {
  const sides = (['right', 'left'] as const).flatMap((side) => {
    const lacks = setTo
      .filter((s) => sideOf(s.tooth) === side)
      .reduce((mm, s) => mm + s.widthMm - (teeth.find((t) => t.tooth === s.tooth)?.widthMm ?? s.widthMm), 0);
    return lacks > SEEN_MM ? [`${number(lacks, 2)} mm narrower on the patient’s ${side}`] : [];
  });
  return sides.length > 0 ? sides.join(' and ') : undefined;
}

/** At most how far, and how much in all, is added and removed. */
function Amounts({ of }: { of: PlannedView }) {
  return (
    <FigureTable className="mb-4 text-note" aria-label="Added and removed">
      <thead>
        <tr>
          <th aria-label="which" />
          <th>at most</th>
          <th>in all</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <td className="font-semibold text-added">added</td>
          <td>+{number(of.mostAddedMm, 2)} mm</td>
          <td>{of.volume ? `${number(of.volume.addedMm3, 1)} mm³` : '…'}</td>
        </tr>
        <tr>
          <td className="font-semibold text-removed-ink">removed</td>
          <td>−{number(of.mostRemovedMm, 2)} mm</td>
          <td>{of.volume ? `${number(of.volume.removedMm3, 1)} mm³` : '…'}</td>
        </tr>
      </tbody>
    </FigureTable>
  );
}
