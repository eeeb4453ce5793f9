import { keysOf } from '@radiant/contract';

/** A group of words of which any number can be on. */
export function Toggles<K extends string>({
  legend,
  words,
  chosen,
  disabled,
  quiet = false,
  onChange,
}: {
  legend: string;
  words: Readonly<Record<K, string>>;
  chosen: readonly K[];
  disabled: boolean;
  /** The legend is for screen readers alone: a heading stands above already. */
  quiet?: boolean;
  onChange: (chosen: K[]) => void;
}) {
  return (
    <fieldset className="flex flex-wrap gap-1.5" disabled={disabled}>
      <legend className={quiet ? 'sr-only' : 'mb-1 text-note'}>{legend}</legend>
      {keysOf(words).map((k) => (
        <button
          key={k}
          type="button"
          className="chip chip-flat"
          aria-pressed={chosen.includes(k)}
          onClick={() => onChange(chosen.includes(k) ? chosen.filter((c) => c !== k) : [...chosen, k])}
        >
          {words[k]}
        </button>
      ))}
    </fieldset>
  );
}
