import { type PlateInput, plateInput } from '@radiant/contract';
import {
  ceramicIn,
  ceramicOf,
  colourOver,
  evenSpectrum,
  type MeasuredCeramic,
  measuredOptics,
  over,
  PLATE_LIMITS,
  plateOfRows,
  rowsOfPlate,
  screenColour,
  shadeOf,
  sheetOf,
  throughSurface,
  translucency,
} from '@radiant/core';
import { CsvIn, freeName } from '../ui/CsvIn.js';
import { saveCsv } from '../ui/csv.js';
import { number } from '../ui/format.js';

/** Ceramics that the house or its laboratory has read over black and white, beside the generic classes. */
export function HouseCeramics({ plates, set }: { plates: readonly PlateInput[]; set: (next: PlateInput[]) => void }) {
  return (
    <section aria-label="Ceramics of the house" className="mb-10">
      <h2 className="title">Ceramics of the house</h2>
      <p className="mb-3 max-w-[80ch] text-note text-ink-2">
        The generic classes are illustrative. A polished plate of a known thickness, read over a black and a white
        ground with a drop of fluid between and the mirror left out, says what your laboratory’s ceramic does: in{' '}
        <i>match</i> it stands beside the classes, in the shade that the plate has.
      </p>
      {plates.length > 0 && (
        <table className="figures mb-3 text-note" aria-label="Ceramics of the house">
          <thead>
            <tr>
              <th scope="col" className="text-left">
                ceramic
              </th>
              <th scope="col">plate, mm</th>
              <th scope="col">1 mm over black, over white</th>
              <th scope="col">translucency</th>
              <th scope="col">
                <span className="sr-only">what can be done</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {plates.map((p) => {
              const optics = measuredOptics(p);
              return (
                <tr key={p.name}>
                  <th scope="row" className="text-left font-normal">
                    {p.name}
                  </th>
                  <td>{number(p.mm, 2)}</td>
                  <td>
                    {[0, 1].map((ground) => (
                      <span
                        key={ground}
                        className="inline-block h-5 w-10 border border-hair align-middle"
                        style={{ background: screenColour(colourOver([{ optics, mm: 1 }], evenSpectrum(ground))) }}
                      />
                    ))}
                  </td>
                  <td>{number(translucency(optics, 1), 1)}</td>
                  <td>
                    <button type="button" className="how mr-3" onClick={() => saveCsv(rowsOfPlate(p), `${p.name}.csv`)}>
                      save as CSV
                    </button>
                    <button
                      type="button"
                      className="how"
                      onClick={() => set(plates.filter((q) => q.name !== p.name))}
                      aria-label={`Take ${p.name} out`}
                    >
                      take out
                    </button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <CsvIn
          label="Ceramic as CSV"
          disabled={plates.length >= PLATE_LIMITS.plates}
          read={(name, rows) =>
            set([...plates, plateInput(plateOfRows(freeName(name, plates, PLATE_LIMITS.name), rows))])
          }
        />
        <button type="button" className="btn btn-ghost" onClick={() => saveCsv(rowsOfPlate(example()), 'example.csv')}>
          Save an example table
        </button>
      </div>
    </section>
  );
}

/** A plate of a generic class, to show how a table is written. Illustrative. */
function example(): MeasuredCeramic {
  const sheet = sheetOf(ceramicIn(ceramicOf('glass-medium'), shadeOf('A2').lab), 1);
  const [black, white] = [evenSpectrum(0.03), evenSpectrum(0.85)];
  const read = (inner: Float64Array) => [...throughSurface(inner)];
  return {
    name: 'example',
    mm: 1,
    overBlack: read(over(sheet, black)),
    overWhite: read(over(sheet, white)),
    blackGround: read(black),
    whiteGround: read(white),
  };
}
