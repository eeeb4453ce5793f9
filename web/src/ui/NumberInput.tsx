import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';
import { number } from './format.js';

/** What is typed is kept to a hundredth, of a millimetre or a degree: finer than any of it is measured. */
const MOST_DIGITS = 2;

/** A number as a person would write it: with the usual decimals, and more where it has more. */
export function shown(value: number | null, digits: number): string {
  if (value === null) return '';
  let d = digits;
  while (d < MOST_DIGITS && Math.abs(value - Number(value.toFixed(d))) > 1e-9) d++;
  return number(value, d);
}

/** What a text says: a number, nothing, or something that may still become one (`-`, `1.`), or never. */
export function read(text: string): { kind: 'number'; value: number } | { kind: 'empty' | 'unfinished' | 'wrong' } {
  const plain = text.trim().replace(',', '.').replace('−', '-');
  if (plain === '') return { kind: 'empty' };
  if (/^[-+]?\.?$/.test(plain)) return { kind: 'unfinished' };
  return /^[-+]?(\d+(\.\d*)?|\.\d+)$/.test(plain) ? { kind: 'number', value: Number(plain) } : { kind: 'wrong' };
}

export interface NumberInputProps {
  readonly value: number | null;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly digits: number;
  readonly unit?: string;
  readonly id?: string;
  readonly label?: string;
  readonly disabled?: boolean;
  /** Only whole numbers. */
  readonly whole?: boolean;
  /** Whether the field may be left empty; `onChange` gives null then. */
  readonly empty?: boolean;
  readonly className?: string;
  readonly busy?: boolean;
  readonly onChange: (value: number | null) => void;
  /** The person is done with it: left it, or pressed Enter. */
  readonly onDone?: () => void;
}

/**
 * The one field for numbers. What is typed stays as it is typed, key by key, until the field is left; a number within
 * the limits is taken at once, one outside them is told and never taken, and half of a number waits for its other half.
 * Arrow keys move one step, with Shift ten.
 */
export function NumberInput(p: NumberInputProps) {
  const own = useId();
  const id = p.id ?? own;
  const [text, setText] = useState(() => shown(p.value, p.digits));
  const [wrong, setWrong] = useState(false);
  /** What the text stands for while it is being typed. */
  const stands = useRef<number | null>(p.value);
  const typing = useRef(false);
  /** What was kept when this number was begun. */
  const before = useRef<number | null>(p.value);

  useEffect(() => {
    if (typing.current && stands.current === p.value) return;
    stands.current = p.value;
    setText(shown(p.value, p.digits));
    setWrong(false);
  }, [p.value, p.digits]);

  const fits = (v: number) => v >= p.min && v <= p.max && (!p.whole || Number.isInteger(v));
  const give = (value: number | null) => {
    stands.current = value;
    setWrong(false);
    if (value !== p.value) p.onChange(value);
  };
  /** The first key of a number may be taken before the second takes it beyond the limits: then nothing of it counts. */
  const refuse = () => {
    give(before.current);
    setWrong(true);
  };
  const type = (next: string) => {
    // What stood there is replaced and not written on: another number begins, and the one before it stays taken.
    const goesOn = typing.current && text !== '' && (next.startsWith(text) || text.startsWith(next));
    if (!goesOn) before.current = stands.current;
    typing.current = true;
    setText(next);
    const said = read(next);
    if (said.kind === 'number') {
      if (fits(said.value)) give(Math.round(said.value * 10 ** MOST_DIGITS) / 10 ** MOST_DIGITS);
      else refuse();
    } else if (said.kind === 'empty' && p.empty) give(null);
    else if (said.kind === 'wrong') refuse();
    else setWrong(false);
  };
  const done = () => {
    typing.current = false;
    const said = read(text);
    const taken = (said.kind === 'number' && fits(said.value)) || (said.kind === 'empty' && p.empty);
    // What was not taken is told, and stays for putting right; what says nothing yet gives way to what is kept.
    if (taken || said.kind === 'empty' || said.kind === 'unfinished') {
      setText(shown(taken ? stands.current : p.value, p.digits));
      setWrong(false);
    }
    p.onDone?.();
  };
  const keys = (e: KeyboardEvent<HTMLInputElement>) => {
    if (e.key === 'Enter') return done();
    if (e.key !== 'ArrowUp' && e.key !== 'ArrowDown') return;
    e.preventDefault();
    const by = (e.key === 'ArrowUp' ? 1 : -1) * p.step * (e.shiftKey ? 10 : 1);
    const next = Math.round(Math.round(((p.value ?? 0) + by) / p.step) * p.step * 1000) / 1000;
    const within = Math.min(p.max, Math.max(p.min, next));
    typing.current = false;
    setText(shown(within, p.digits));
    give(within);
  };
  return (
    <span className="relative inline-block">
      <input
        id={id}
        className={p.className ?? 'field h-[30px] w-[76px] text-right'}
        inputMode="decimal"
        autoComplete="off"
        aria-label={p.label}
        aria-invalid={wrong || undefined}
        aria-describedby={wrong ? `${id}-why` : undefined}
        aria-busy={p.busy}
        disabled={p.disabled}
        value={text}
        onChange={(e) => type(e.target.value)}
        onBlur={done}
        onKeyDown={keys}
      />
      {wrong && (
        <span id={`${id}-why`} role="alert" className="number-why">
          Between {number(p.min, p.digits)} and {number(p.max, p.digits)}
          {p.unit ? ` ${p.unit}` : ''}
          {p.whole ? ', whole' : ''}; not taken.
        </span>
      )}
    </span>
  );
}
