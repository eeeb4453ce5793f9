import { NOTATION_NAMES } from '@radiant/core';
import { type ComponentProps, useRef } from 'react';
import { useCase } from '../data/case-context.js';
import { rowsOf, saveCsv } from '../ui/csv.js';

/** A table of figures; it can be saved as CSV, as it stands, with the notation of its teeth in the first line. */
export function FigureTable({ className = '', ...rest }: ComponentProps<'table'>) {
  const { notation } = useCase();
  const table = useRef<HTMLTableElement>(null);
  const name = rest['aria-label'] ?? 'table';
  const save = () => {
    if (!table.current) return;
    saveCsv(
      [['tooth numbers', NOTATION_NAMES[notation].long], ...rowsOf(table.current)],
      `${name}, ${NOTATION_NAMES[notation].short} numbers.csv`,
    );
  };
  return (
    <div className="group relative">
      <table ref={table} className={`figures ${className}`} {...rest} />
      <button
        type="button"
        className="absolute -top-5 right-0 h-6 min-w-6 rounded bg-leaf px-1.5 text-tiny text-plum opacity-0 shadow-sm group-hover:opacity-100 focus-visible:opacity-100"
        aria-label={`Save as CSV: ${name}`}
        onClick={save}
      >
        csv
      </button>
    </div>
  );
}
