import { Slider } from 'radix-ui';
import { useId } from 'react';
import { NumberInput } from './NumberInput.js';

/** A number with its unit as field and slider. */
export function NumberField({
  label,
  unit,
  value,
  min,
  max,
  step,
  digits,
  disabled,
  note,
  onChange,
  onDone,
}: {
  label: string;
  unit: string;
  value: number;
  min: number;
  max: number;
  step: number;
  digits: number;
  disabled: boolean;
  /** What the figure is beside: the tooth as it stands, for example. */
  note?: string;
  onChange: (v: number) => void;
  onDone: () => void;
}) {
  const id = useId();
  const round = (v: number) => Math.round(Math.round(v / step) * step * 1000) / 1000;
  return (
    <div className="mb-3">
      <div className="flex items-center justify-between gap-2">
        <label htmlFor={id} className="min-w-0">
          {label}
          {note && <span className="pm block leading-tight">{note}</span>}
        </label>
        <span className="relative flex shrink-0 items-center gap-1.5">
          <NumberInput
            id={id}
            className="field h-[30px] w-[74px] text-right font-semibold"
            {...{ value, min, max, step, digits, unit, disabled, onDone }}
            onChange={(v) => v !== null && onChange(v)}
          />
          <span className="w-[20px] text-ink-2">{unit}</span>
        </span>
      </div>
      <Slider.Root
        className="relative mt-1.5 flex h-5 touch-none items-center"
        value={[value]}
        min={min}
        max={max}
        step={step}
        disabled={disabled}
        onValueChange={([v]) => v !== undefined && onChange(round(v))}
        onValueCommit={onDone}
      >
        <Slider.Track className="relative h-1 grow rounded-full bg-hair">
          <Slider.Range className="absolute h-full rounded-full bg-plum" />
        </Slider.Track>
        <Slider.Thumb
          aria-label={label}
          className="block h-4 w-4 rounded-full border-2 border-plum bg-leaf shadow data-[disabled]:border-ink-3"
        />
      </Slider.Root>
    </div>
  );
}
