import type { Proposal } from '@radiant/core';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { useContour } from '../../engine/use-contour.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { How, Value } from '../../ui/How.js';

/** The room that the widths share, how far it goes, and by which rules it is shared. */
export function SpaceFields({ proposal }: { proposal: Proposal }) {
  const { data, set } = useSection('propose');
  const mayWrite = useMayWrite('propose');
  const name = useToothLabel();
  const contour = useContour();
  const scanned = (tooth: number) =>
    contour.state === 'ready' ? contour.arch.existing.find((e) => e.tooth === tooth)?.widthMm : undefined;
  const [right, left] = [scanned(14), scanned(24)];
  const wide = !!data.premolars;
  return (
    <>
      <h2 className="title mb-1 mt-6">Space</h2>
      <p className="text-note text-ink-2">
        <b className="font-semibold text-ink">
          <Value figure={proposal.space} unit />
        </b>{' '}
        from {wide ? 'first premolar to first premolar' : 'canine to canine'} along the arch.{' '}
        <How figure={proposal.space} what="space" />
      </p>
      <label className="mt-1 flex h-8 items-center gap-2">
        <input
          type="checkbox"
          className="accent-plum"
          disabled={!mayWrite || (!wide && (right === undefined || left === undefined))}
          checked={wide}
          onChange={(e) =>
            set({
              ...data,
              premolars:
                e.target.checked && right !== undefined && left !== undefined
                  ? { right: Math.round(right * 100) / 100, left: Math.round(left * 100) / 100 }
                  : null,
            })
          }
        />
        the first premolars give and take too
      </label>
      {proposal.premolars && (
        <p className="mb-1 ml-6 text-note text-ink-2">
          {proposal.premolars.map((p) => (
            <span key={p.tooth} className="mr-4">
              {name(p.tooth)} {number(p.isMm, 1)} → <b className="font-semibold text-plum">{number(p.widthMm, 1)}</b> mm
            </span>
          ))}
        </p>
      )}
      <label className="flex h-8 items-center gap-2">
        <input
          type="checkbox"
          className="accent-plum"
          disabled={!mayWrite}
          checked={data.gaps !== 'keep'}
          onChange={(e) => set({ ...data, gaps: e.target.checked ? 'close' : 'keep' })}
        />
        close the gaps
      </label>
      <label className="flex h-8 items-center gap-2">
        <input
          type="checkbox"
          className="accent-plum"
          disabled={!mayWrite}
          checked={data.alike !== false}
          onChange={(e) => set({ ...data, alike: e.target.checked })}
        />
        left and right alike
      </label>
    </>
  );
}
