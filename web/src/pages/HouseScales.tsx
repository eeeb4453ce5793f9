import { LAB_LIMITS, type ScaleInput, scaleInput, scaleOf } from '@radiant/contract';
import { LETTER_SCALE, Refusal, rowsOfScale, SCALE_LIMITS, screenColour, shadesOfRows } from '@radiant/core';
import { CsvIn, freeName } from '../ui/CsvIn.js';
import { saveCsv } from '../ui/csv.js';

/** Scales of shades beside the letters: a house reads its own tabs, or a laboratory its stains. */
export function HouseScales({ scales, set }: { scales: readonly ScaleInput[]; set: (next: ScaleInput[]) => void }) {
  return (
    <section aria-label="Scales of shades" className="mb-10">
      <h2 className="title">Scales of shades</h2>
      <p className="mb-3 max-w-[80ch] text-note text-ink-2">
        The letter scale is always there, by {LETTER_SCALE.source.text}; single tabs differ by 1 to 3 ΔE. A scale of
        your own is a table: shade with L, a and b, or with reflectances from 400 to 700 nm by 10. Cases keep the colour
        that they were given.
      </p>
      {scales.map((s) => (
        <div key={s.name} className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-hair pt-2">
          <b className="font-semibold">{s.name}</b>
          <span className="flex">
            {s.shades.map((x) => (
              <span
                key={x.name}
                title={x.name}
                className="h-5 w-4"
                style={{ background: screenColour({ L: x.L, a: x.a, b: x.b }) }}
              />
            ))}
          </span>
          <span className="text-note text-ink-2">{s.shades.length} shades</span>
          <span className="ml-auto flex gap-3">
            <button type="button" className="how" onClick={() => saveCsv(rowsOfScale(scaleOf(s)), `${s.name}.csv`)}>
              save as CSV
            </button>
            <button
              type="button"
              className="how"
              aria-label={`Take the scale ${s.name} out`}
              onClick={() => set(scales.filter((t) => t.name !== s.name))}
            >
              take out
            </button>
          </span>
        </div>
      ))}
      <div className="flex flex-wrap items-center gap-2">
        <CsvIn
          label="Scale as CSV"
          disabled={scales.length >= SCALE_LIMITS.scales}
          read={(name, rows) => {
            const own = scaleInput({ name: freeName(name, scales, SCALE_LIMITS.name), shades: shadesOfRows(rows) });
            for (const shade of own.shades)
              for (const c of ['L', 'a', 'b'] as const)
                if (shade[c] < LAB_LIMITS[c].min || shade[c] > LAB_LIMITS[c].max)
                  throw new Refusal(
                    'colour-table',
                    `${c}* of ${shade.name} is ${shade[c].toFixed(1)}; of a tooth it lies between ${LAB_LIMITS[c].min} and ${LAB_LIMITS[c].max}.`,
                  );
            set([...scales, own]);
          }}
        />
        <button
          type="button"
          className="btn btn-ghost"
          onClick={() => saveCsv(rowsOfScale(LETTER_SCALE), 'letter scale.csv')}
        >
          Save the letter scale as CSV
        </button>
      </div>
    </section>
  );
}
