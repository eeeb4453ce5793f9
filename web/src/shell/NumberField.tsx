import { Slider } from 'radix-ui';
import { type KeyboardEvent, useEffect, useId, useState } from 'react';
import { number } from './format.js';

/**
 * A number with its unit as field and slider. A number outside the limits stays in the field and is told, and nothing
 * changes; arrow keys move one step, with Shift ten.
 */
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
  const [text, setText] = useState(number(value, digits));
  const [wrong, setWrong] = useState(false);
  useEffect(() => {
    setText(number(value, digits));
    setWrong(false);
  }, [value, digits]);
  const round = (v: number) => Math.round(Math.round(v / step) * step * 1000) / 1000;
  const take = (s: string) => {
    setText(s);
    const v = Number(s.replace(',', '.').replace('−', '-'));
    const fits = s.trim() !== '' && Number.isFinite(v) && v >= min && v <= max;
    setWrong(!fits);
    if (fits && v !== value) onChange(v);
  };
  const keys = (e: KeyboardEvent<HTMLInputElement>) => {
    if (e.key !== 'ArrowUp' && e.key !== 'ArrowDown') return;
    e.preventDefault();
    const by = (e.key === 'ArrowUp' ? 1 : -1) * step * (e.shiftKey ? 10 : 1);
    onChange(Math.min(max, Math.max(min, round(value + by))));
  };
  return (
    <div className="mb-3">
      <div className="flex items-center justify-between gap-2">
        <label htmlFor={id} className="min-w-0">
          {label}
          {note && <span className="pm block leading-tight">{note}</span>}
        </label>
        <span className="flex shrink-0 items-center gap-1.5">
          <input
            id={id}
            className="field h-[30px] w-[74px] text-right font-semibold"
            inputMode="decimal"
            value={text}
            disabled={disabled}
            aria-invalid={wrong || undefined}
            aria-describedby={wrong ? `${id}-why` : undefined}
            onChange={(e) => take(e.target.value)}
            onBlur={onDone}
            onKeyDown={keys}
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
        <Slider.Thumb aria-label={label} className="block h-4 w-4 rounded-full border-2 border-plum bg-leaf shadow data-[disabled]:border-ink-3" />
      </Slider.Root>
      {wrong && (
        <p id={`${id}-why`} role="alert" className="text-[13px] text-stop">
          Between {number(min, digits)} and {number(max, digits)} {unit}; not taken.
        </p>
      )}
    </div>
  );
}
