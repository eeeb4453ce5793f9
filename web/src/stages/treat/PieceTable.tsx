import { TREAT_LIMITS, type TreatSection } from '@radiant/contract';
import { BASES, type Base, CEMENT_KINDS, type CementKind, inRow, type Piece } from '@radiant/core';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { NumberInput } from '../../ui/NumberInput.js';

type Own = TreatSection['pieces'][number];
const CEMENT_ORDER = Object.keys(CEMENT_KINDS) as readonly CementKind[];
const BASE_ORDER = Object.keys(BASES) as readonly Base[];

/** How each piece is fixed: with which cement, on what, how thick it was measured. */
export function PieceTable({ pieces, mayWrite }: { pieces: readonly Piece[]; mayWrite: boolean }) {
  const name = useToothLabel();
  const { data, set, store } = useSection('treat');
  const put = (tooth: number, change: Partial<Own>, group: string) => {
    const before = data.pieces.find((p) => p.tooth === tooth) ?? { tooth };
    set({ ...data, pieces: [...data.pieces.filter((p) => p.tooth !== tooth), { ...before, ...change }] }, group);
  };
  if (pieces.length === 0) return null;
  return (
    <table className="figures w-full text-note" aria-label="How pieces are fixed">
      <thead>
        <tr>
          <th scope="col">piece</th>
          <th scope="col" className="text-left!">
            cement
          </th>
          <th scope="col" className="text-left!">
            held on
          </th>
          <th scope="col">thickest, mm</th>
          <th scope="col" className="pl-3!">
            wall, mm
          </th>
          <th scope="col" className="pl-3!">
            etched
          </th>
        </tr>
      </thead>
      <tbody>
        {inRow(pieces.map((p) => p.tooth)).map((tooth) => {
          const p = pieces.find((x) => x.tooth === tooth) as Piece;
          const own = data.pieces.find((o) => o.tooth === p.tooth);
          return (
            <tr key={p.tooth}>
              <th scope="row">
                {name(p.tooth)} <span className="font-normal text-ink-2">{p.material}</span>
              </th>
              <td className="text-left!">
                <select
                  className="field min-h-12 w-[168px] px-1.5 text-note"
                  aria-label={`Cement of ${name(p.tooth)}`}
                  disabled={!mayWrite}
                  value={p.cement}
                  onChange={(e) => put(p.tooth, { cement: e.target.value as CementKind }, `cement ${p.tooth}`)}
                >
                  {CEMENT_ORDER.map((c) => (
                    <option key={c} value={c}>
                      {CEMENT_KINDS[c]}
                    </option>
                  ))}
                </select>
              </td>
              <td className="text-left!">
                <span className="flex flex-wrap gap-1">
                  {BASE_ORDER.map((b) => {
                    const on = p.bases.includes(b);
                    const last = on && p.bases.length === 1;
                    return (
                      <button
                        key={b}
                        type="button"
                        className="chip chip-flat min-h-12"
                        aria-pressed={on}
                        aria-label={`${name(p.tooth)} on ${BASES[b]}`}
                        disabled={!mayWrite}
                        onClick={() =>
                          !last &&
                          put(
                            p.tooth,
                            { bases: on ? p.bases.filter((x) => x !== b) : [...p.bases, b] },
                            `bases ${p.tooth}`,
                          )
                        }
                      >
                        {b}
                      </button>
                    );
                  })}
                </span>
              </td>
              <td>
                <NumberInput
                  label={`Thickness of ${name(p.tooth)}`}
                  className="field min-h-12 w-16 px-1.5 text-right"
                  value={own?.thickMm ?? p.thickMm ?? null}
                  {...TREAT_LIMITS.thickMm}
                  step={0.1}
                  digits={1}
                  empty
                  disabled={!mayWrite}
                  onChange={(v) => put(p.tooth, { thickMm: v }, `thick ${p.tooth}`)}
                  onDone={() => store.endGroup()}
                />
                <span className="block text-tiny text-ink-2">
                  {own?.thickMm != null ? 'measured' : p.thickMm !== undefined ? 'as designed' : 'not known'}
                </span>
              </td>
              <td className="pl-3!">
                {p.kind !== 'crown' ? (
                  <span className="text-ink-3">–</span>
                ) : (
                  <NumberInput
                    label={`Lowest wall of ${name(p.tooth)}`}
                    className="field min-h-12 w-16 px-1.5 text-right"
                    value={own?.wallMm ?? null}
                    {...TREAT_LIMITS.wallMm}
                    step={0.5}
                    digits={1}
                    empty
                    disabled={!mayWrite}
                    onChange={(v) => put(p.tooth, { wallMm: v }, `wall ${p.tooth}`)}
                    onDone={() => store.endGroup()}
                  />
                )}
              </td>
              <td>
                <input
                  type="checkbox"
                  className="size-6 accent-plum"
                  aria-label={`${name(p.tooth)} was etched by the laboratory`}
                  checked={!!own?.etched}
                  disabled={!mayWrite || (p.material !== 'feldspathic' && p.material !== 'glass-ceramic')}
                  onChange={(e) => put(p.tooth, { etched: e.target.checked }, `etched ${p.tooth}`)}
                />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
