import { type Front, proposalChoice } from '@radiant/contract';
import { type Proposal, propose, SCHOOLS, type SchoolId } from '@radiant/core';
import { useMemo } from 'react';
import { toothOutline } from '../../bench/tooth-outline.js';
import { useSection } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';

/** Every school side by side: what it would make of these teeth, to one scale; one is chosen. */
export function SchoolStrip({
  front,
  onLook,
}: {
  front: Front;
  /** While the pointer rests on a school: what it would make, and its name; nothing when it leaves. */
  onLook: (look: { readonly name: string; readonly proposal: Proposal } | undefined) => void;
}) {
  const { data, set } = useSection('propose');
  const mayWrite = useMayWrite('propose');
  const all = useMemo(
    () =>
      SCHOOLS.map((s) => {
        const choice = proposalChoice({ ...data, school: s.id as SchoolId, locked: [] });
        return { ...s, proposal: propose(front.measures, choice, front.gaps, front.roles) };
      }),
    [front, data],
  );
  return (
    <fieldset
      className="grid shrink-0 grid-cols-[repeat(auto-fill,minmax(84px,1fr))] gap-1.5 @[680px]:grid-cols-9"
      disabled={!mayWrite}
    >
      <legend className="sr-only">School</legend>
      {all.map(({ id, name, proposal }) => (
        <label
          key={id}
          onPointerEnter={() => proposal && id !== data.school && onLook({ name, proposal })}
          onPointerLeave={() => onLook(undefined)}
          className="flex cursor-pointer flex-col rounded-lg border border-hair bg-leaf px-1.5 pb-1.5 pt-1 hover:border-ink-3 has-checked:border-plum has-checked:bg-plum-soft has-focus-visible:outline-2 has-focus-visible:outline-plum"
        >
          <input
            type="radio"
            name="school"
            className="sr-only"
            checked={data.school === id}
            onChange={() => {
              onLook(undefined);
              set({ ...data, school: id as SchoolId });
            }}
          />
          {proposal && <Teeth proposal={proposal} />}
          <b className="flex min-h-[28px] items-end text-tiny font-semibold leading-[14px]">{name}</b>
          {proposal && (
            <span className="whitespace-nowrap text-tiny tracking-tight tabular-nums text-ink-2">
              {rightOf(proposal)}
            </span>
          )}
        </label>
      ))}
    </fieldset>
  );
}

/** Widths of one side from the midline outward. */
function rightOf(p: Proposal): string {
  const side = p.targets.filter((t) => t.tooth < 20);
  return [...(side.length > 0 ? side : p.targets)]
    .sort((a, b) => a.tooth - b.tooth)
    .map((t) => number(t.width.value, 1))
    .join(' · ');
}

const within = (v: number, lo: number, hi: number) => Math.min(hi, Math.max(lo, v));

/** The six teeth in a row, edges at their levels. */
function Teeth({ proposal }: { proposal: Proposal }) {
  const total = proposal.targets.reduce((n, t) => n + t.width.value, 0);
  let along = -total / 2;
  return (
    <svg viewBox="-26 -12.4 52 13.6" className="h-[26px] w-full" aria-hidden="true">
      {proposal.targets.map((t) => {
        const x = along + t.width.value / 2;
        along += t.width.value;
        const size = {
          widthMm: within(t.width.value, 3, 14),
          lengthMm: within(t.length.value, 5, 16),
          facialVolumeMm: 0,
        };
        return (
          <path
            key={t.tooth}
            d={toothOutline(t.tooth, size).path}
            transform={`translate(${x} ${t.role === 'lateral' ? -0.5 : 0})`}
            fill={PALETTE.leaf}
            stroke={PALETTE.plum}
            strokeWidth={0.45}
          />
        );
      })}
    </svg>
  );
}
