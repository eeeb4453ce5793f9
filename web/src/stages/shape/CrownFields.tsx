import {
  PLAN_FIELDS,
  PLAN_GROUPS,
  type PlanField,
  type PlanGroup,
  planDefault,
  type ToothPlanInput,
} from '@radiant/contract';
import { CROWN_CHARACTERS, type Fdi, PLAN_LIMITS } from '@radiant/core';
import { useEffect, useState } from 'react';
import { toothOutline } from '../../bench/tooth-outline.js';
import { NumberField } from '../../ui/NumberField.js';
import { PalatalField } from './PalatalField.js';

const WORDS: Readonly<Record<PlanGroup, string>> = {
  size: 'size',
  face: 'face',
  edge: 'edge',
  neck: 'neck',
  stand: 'stand',
};

/** The numbers of one planned crown, group by group, and its character. */
export function CrownFields({
  own,
  notes,
  disabled,
  onChange,
  onDone,
  tryOut,
}: {
  own: ToothPlanInput;
  notes: Partial<Record<PlanField['key'], string>>;
  disabled: boolean;
  onChange: (change: Partial<ToothPlanInput>, what: string) => void;
  onDone: () => void;
  tryOut: (by: Partial<ToothPlanInput> | undefined) => void;
}) {
  const [group, setGroup] = useState<PlanGroup>('size');
  const changed = (g: PlanGroup) =>
    g !== 'size' &&
    (PLAN_FIELDS.some((f) => f.group === g && (own[f.key] ?? planDefault(f.key)) !== planDefault(f.key)) ||
      (g === 'face' && !!own.character));
  return (
    <>
      <fieldset className="mb-3 flex gap-1" aria-label="Numbers of the crown">
        {PLAN_GROUPS.map((g) => (
          <button
            key={g}
            type="button"
            className="chip chip-flat px-[9px]"
            aria-pressed={group === g}
            onClick={() => setGroup(g)}
          >
            {WORDS[g]}
            {changed(g) && (
              <span role="img" aria-label="changed" className="h-1.5 w-1.5 rounded-full bg-current opacity-70" />
            )}
          </button>
        ))}
      </fieldset>
      {group === 'face' && (
        <Characters tooth={own.tooth} own={own} disabled={disabled} onChange={onChange} tryOut={tryOut} />
      )}
      {group === 'edge' && <PalatalField own={own} disabled={disabled} onChange={onChange} />}
      {PLAN_FIELDS.filter((f) => f.group === group).map((f) => (
        <NumberField
          key={f.key}
          label={f.label}
          unit={f.unit}
          value={own[f.key] ?? planDefault(f.key)}
          min={PLAN_LIMITS[f.key].min}
          max={PLAN_LIMITS[f.key].max}
          step={f.step}
          digits={f.digits}
          disabled={disabled}
          {...((notes[f.key] ?? f.note) && { note: notes[f.key] ?? f.note })}
          onChange={(v) => onChange({ [f.key]: v }, f.key)}
          onDone={onDone}
        />
      ))}
    </>
  );
}

/** Three characters as outlines of this very tooth; under the pointer its crown on the bench takes them. */
function Characters({
  tooth,
  own,
  disabled,
  onChange,
  tryOut,
}: {
  tooth: Fdi;
  own: ToothPlanInput;
  disabled: boolean;
  onChange: (change: Partial<ToothPlanInput>, what: string) => void;
  tryOut: (by: Partial<ToothPlanInput> | undefined) => void;
}) {
  // What is shown on the bench while one is looked at goes when the hand goes, however it goes.
  useEffect(() => () => tryOut(undefined), [tryOut]);
  const { lengthMm, widthMm } = own;
  return (
    <fieldset className="mb-3 grid grid-cols-3 gap-2" aria-label="Character">
      {CROWN_CHARACTERS.map((c) => (
        <button
          key={c}
          type="button"
          disabled={disabled}
          className="rounded-lg border border-hair bg-white pt-2 pb-1 aria-pressed:border-plum aria-pressed:bg-plum-soft aria-pressed:text-plum"
          aria-pressed={(own.character ?? 'even') === c}
          onClick={() => {
            tryOut(undefined);
            onChange({ character: c }, 'character');
          }}
          onPointerEnter={(e) => !disabled && e.pointerType !== 'touch' && tryOut({ character: c })}
          onPointerLeave={() => tryOut(undefined)}
          onFocus={() => tryOut({ character: c })}
          onBlur={() => tryOut(undefined)}
        >
          <svg
            viewBox={`${-widthMm / 2 - 0.5} ${-lengthMm - 0.5} ${widthMm + 1} ${lengthMm + 1}`}
            className="mx-auto h-[58px]"
            aria-hidden="true"
          >
            <path
              d={toothOutline(tooth, { lengthMm, widthMm, facialVolumeMm: 0, character: c }).path}
              fill="#faf3e3"
              stroke="currentColor"
              strokeWidth={0.22}
            />
          </svg>
          <span className="text-note">{c}</span>
        </button>
      ))}
    </fieldset>
  );
}
