import type { ToothPlanInput } from '@radiant/contract';
import { restorationOf } from '@radiant/core';
import { useSection } from '../../data/case-context.js';

const SIDES = [
  ['own', 'the tooth’s own'],
  [undefined, 'by the form'],
] as const;

/** Whether behind the edge the tooth's own surface stays or the form's takes its place. */
export function PalatalField({
  own,
  disabled,
  onChange,
}: {
  own: ToothPlanInput;
  disabled: boolean;
  onChange: (change: Partial<ToothPlanInput>, what: string) => void;
}) {
  const { design } = restorationOf(own.tooth, useSection('reduce').data);
  const covered = (design.covers as readonly string[]).includes('palatal');
  const side = own.tooth < 30 ? 'Palatal side' : 'Lingual side';
  return (
    <fieldset className="mb-3" disabled={disabled} aria-label={side}>
      <div className="mb-1 text-note">{side}</div>
      <div className="flex gap-2">
        {SIDES.map(([palatal, words]) => (
          <button
            key={words}
            type="button"
            className="chip chip-flat"
            aria-pressed={own.palatal === palatal}
            onClick={() => onChange({ palatal }, 'palatal')}
          >
            {words}
          </button>
        ))}
      </div>
      {covered !== (own.palatal !== 'own') && (
        <p className="finding mt-2 text-note" data-weight="watch">
          {covered
            ? `A ${design.name} covers this side: plan it by the form.`
            : `A ${design.name} leaves this side: by the form the plan and a mock-up of it add there, and may lift the bite.`}
        </p>
      )}
    </fieldset>
  );
}
