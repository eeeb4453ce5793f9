import { Refusal } from '@radiant/core';
import { useRef, useState } from 'react';
import { rowsIn } from './read-csv.js';

/**
 * A table that is read in: a button, and beside it why a table was refused. Nothing is changed then.
 * @param read takes the rows, or refuses them
 */
export function CsvIn({
  label,
  words = 'Read CSV',
  look = 'btn btn-ghost',
  disabled,
  read,
}: {
  label: string;
  /** What stands on the button, and its classes. */
  words?: string;
  look?: string;
  disabled?: boolean;
  read: (name: string, rows: string[][]) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [said, setSaid] = useState<string>();
  const take = async (file: File | undefined) => {
    if (!file) return;
    setSaid(undefined);
    try {
      read(file.name.replace(/\.csv$/i, ''), rowsIn(await file.text()));
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      setSaid(`${file.name}: ${error.message} Nothing was changed.`);
    }
  };
  return (
    <>
      <button type="button" className={look} disabled={disabled} onClick={() => input.current?.click()}>
        {words}
      </button>
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv"
        aria-label={label}
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          void take(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
      {said && (
        <p role="alert" className="finding basis-full" data-weight="stop">
          {said}
        </p>
      )}
    </>
  );
}

/** A name that none of a list has yet. */
export function freeName(name: string, taken: readonly { readonly name: string }[], most: number): string {
  for (let n = 1; ; n++) {
    const own = n === 1 ? name.slice(0, most) : `${name.slice(0, most - 4)} ${n}`;
    if (!taken.some((t) => t.name === own)) return own;
  }
}
