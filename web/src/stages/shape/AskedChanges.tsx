import {
  AskedChange,
  type ContourVersion,
  PLAN_FIELDS,
  planRefusal,
  sameContour,
  scanOf,
  withAsked,
} from '@radiant/contract';
import { useState } from 'react';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { signed } from '../../ui/format.js';
import { NumberInput } from '../../ui/NumberInput.js';

const fieldOf = (key: AskedChange['key']) => PLAN_FIELDS.find((f) => f.key === key) ?? PLAN_FIELDS[0];

/**
 * What was asked for after wearing a version, one number of one tooth a line; made into edits of the contour by one
 * press.
 */
export function AskedChanges({
  version: v,
  asked,
  set,
  noted,
  disabled,
  onMade,
}: {
  version: ContourVersion;
  asked: readonly AskedChange[];
  set: (a: AskedChange[]) => void;
  /** Whether the list is as it was noted, so that the edits stand on the record. */
  noted: boolean;
  disabled: boolean;
  onMade: () => void;
}) {
  const shape = useSection('shape');
  const name = useToothLabel();
  const [refusal, setRefusal] = useState<string>();
  const change = (i: number, by: Partial<AskedChange>) => set(asked.map((a, k) => (k === i ? { ...a, ...by } : a)));
  const make = () => {
    const { teeth, unmade } = withAsked(v.teeth, asked);
    const [first] = unmade;
    if (first) {
      const f = fieldOf(first.key);
      return setRefusal(`${name(first.tooth)}: ${f ? planRefusal(f) : ''} Nothing was changed.`);
    }
    setRefusal(undefined);
    shape.set({ ...shape.data, ...scanOf(v), teeth });
    onMade();
  };
  return (
    <fieldset className="mt-4" aria-label="Changes asked for">
      <div className="mb-1 flex items-baseline justify-between">
        <h4 className="font-semibold">Changes asked for</h4>
        {!disabled && (
          <button
            type="button"
            className="how text-note"
            onClick={() =>
              set([
                ...asked,
                Object.assign(new AskedChange(), { tooth: v.teeth[0]?.tooth ?? 11, key: 'lengthMm', by: -0.5 }),
              ])
            }
          >
            add one
          </button>
        )}
      </div>
      {asked.length === 0 && (
        <p className="text-note text-ink-2">
          None. What is asked for here becomes an edit of the contour, tooth by tooth.
        </p>
      )}
      {asked.map((a, i) => {
        const field = fieldOf(a.key);
        return (
          <div key={`${i.toString()}`} className="mb-1.5 flex items-center gap-2">
            <select
              className="field h-[30px] w-[76px]"
              aria-label="Tooth"
              disabled={disabled}
              value={a.tooth}
              onChange={(e) => change(i, { tooth: Number(e.target.value) })}
            >
              {v.teeth.map((t) => (
                <option key={t.tooth} value={t.tooth}>
                  {name(t.tooth)}
                </option>
              ))}
            </select>
            <select
              className="field h-[30px] flex-1"
              aria-label="What of it"
              disabled={disabled}
              value={a.key}
              onChange={(e) => change(i, { key: e.target.value as AskedChange['key'] })}
            >
              {PLAN_FIELDS.map((f) => (
                <option key={f.key} value={f.key}>
                  {f.label}
                </option>
              ))}
            </select>
            <NumberInput
              label="By how much"
              className="field h-[30px] w-[76px] px-2 text-right"
              value={a.by}
              min={-30}
              max={30}
              step={field?.step ?? 0.05}
              digits={field?.digits ?? 2}
              {...(field && { unit: field.unit })}
              disabled={disabled}
              onChange={(by) => by !== null && change(i, { by })}
            />
            <span className="w-[22px] text-ink-2">{field?.unit}</span>
            {!disabled && (
              <button
                type="button"
                className="how text-note"
                aria-label={`take away ${name(a.tooth)} ${field?.label} ${signed(a.by, 2)}`}
                onClick={() => set(asked.filter((_, k) => k !== i))}
              >
                take away
              </button>
            )}
          </div>
        );
      })}
      {refusal && (
        <p role="alert" className="text-note text-stop">
          {refusal}
        </p>
      )}
      {!disabled && asked.length > 0 && noted && !sameContour(v.teeth, shape.data.teeth) && (
        <p className="text-note text-ink-2">
          They begin from version {v.number}: what was changed on the contour since then goes, and one undo brings it
          back.
        </p>
      )}
      {!disabled && asked.length > 0 && (
        <button type="button" className="btn btn-ghost mt-1" disabled={!noted} onClick={make}>
          {noted ? 'Make these edits on this version' : 'Note them first, then make the edits'}
        </button>
      )}
    </fieldset>
  );
}
