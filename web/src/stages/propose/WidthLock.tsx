import { CROWN_LIMITS } from '@radiant/core';
import { Lock, LockOpen } from 'lucide-react';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { NumberInput } from '../../ui/NumberInput.js';

/** Holds a width as it is, or lets it go; the others share what is left. */
export function WidthLock({ tooth, widthMm }: { tooth: number; widthMm: number }) {
  const { data, set, store } = useSection('propose');
  const mayWrite = useMayWrite('propose');
  const name = useToothLabel();
  const locked = data.locked ?? [];
  const on = locked.some((l) => l.tooth === tooth);
  if (!mayWrite) return on ? <Lock size={13} aria-label={`width of ${name(tooth)} is held`} /> : null;
  const toggle = () =>
    set({
      ...data,
      locked: on
        ? locked.filter((l) => l.tooth !== tooth)
        : [...locked, { tooth, widthMm: Math.round(widthMm * 10) / 10 }],
    });
  return (
    <span className="ml-0.5 flex items-center gap-1">
      <button
        type="button"
        aria-pressed={on}
        aria-label={`hold the width of ${name(tooth)}`}
        className={`flex h-6 w-6 items-center justify-center ${on ? 'text-plum' : 'text-ink-2 hover:text-plum'}`}
        onClick={toggle}
      >
        {on ? <Lock size={14} aria-hidden="true" /> : <LockOpen size={14} aria-hidden="true" />}
      </button>
      {on && (
        <NumberInput
          label={`width of ${name(tooth)}, mm`}
          className="field h-6 w-[54px] px-1 text-right text-note"
          value={locked.find((l) => l.tooth === tooth)?.widthMm ?? null}
          min={CROWN_LIMITS.widthMm.min}
          max={CROWN_LIMITS.widthMm.max}
          step={0.1}
          digits={1}
          unit="mm"
          onChange={(next) =>
            next !== null &&
            set(
              { ...data, locked: locked.map((l) => (l.tooth === tooth ? { tooth, widthMm: next } : l)) },
              `lock ${tooth}`,
            )
          }
          onDone={() => store.endGroup()}
        />
      )}
    </span>
  );
}
