import {
  BUR_LIMITS,
  BUR_SHAPES,
  type Bur,
  type BurShape,
  type BurSize,
  burName,
  engagements,
  finishes,
  GRITS,
  type Grit,
  hasTip,
  isoDiameter,
  TRAY_LIMITS,
  type Tray,
} from '@radiant/core';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { BurProfile } from '../bench/BurProfile.js';
import { number } from '../ui/format.js';
import { NumberOnceDone } from '../ui/NumberOnceDone.js';

const SIZES: readonly (readonly [BurSize, string])[] = [
  ['largestMm', 'largest'],
  ['tipMm', 'tip'],
  ['lengthMm', 'length'],
  ['shankMm', 'shank'],
];
/** What a new bur is until somebody says it otherwise. */
const NEW_BUR: Bur = { shape: 'round-end', largestMm: 1.2, tipMm: 0.8, lengthMm: 6, shankMm: 1.6, grit: 'medium' };

/** The burs of a tray in profile, with what each cuts. */
export function TrayTable({
  tray,
  change,
  remove,
  first,
}: {
  tray: Tray;
  change: (next: Tray) => void;
  remove?: () => void;
  first?: () => void;
}) {
  const [name, setName] = useState(tray.name);
  const set = (i: number, next: Partial<Bur>) =>
    change({ ...tray, burs: tray.burs.map((b, n) => (n === i ? sized({ ...b, ...next }) : b)) });
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2">
          Name
          <input
            className="field w-[240px]"
            value={name}
            maxLength={TRAY_LIMITS.name}
            onChange={(e) => setName(e.target.value)}
            onBlur={() => name !== tray.name && change({ ...tray, name: name.trim() })}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          />
        </label>
        <span className="text-note text-ink-2">{tray.burs.length} burs, drawn to scale</span>
        <span className="flex-1" />
        {first && (
          <button type="button" className="how" onClick={first}>
            cases begin with this tray
          </button>
        )}
        {remove && (
          <button type="button" className="how" onClick={remove}>
            take the tray away
          </button>
        )}
      </div>
      <div className="overflow-x-auto">
        <table className="w-full border-collapse text-note" aria-label={`Burs of ${tray.name}`}>
          <thead className="text-left text-tiny text-ink-2">
            <tr>
              <th scope="col" className="w-[104px] font-normal">
                <span className="sr-only">profile</span>
              </th>
              <th scope="col" className="font-normal">
                shape
              </th>
              {SIZES.map(([key, words]) => (
                <th key={key} scope="col" className="pl-2 font-normal">
                  {words}, mm
                </th>
              ))}
              <th scope="col" className="pl-2 font-normal">
                grit, µm
              </th>
              <th scope="col" className="pl-3 font-normal">
                cuts a depth of, mm
              </th>
              <th scope="col" className="pl-2 font-normal">
                in the house called
              </th>
              <th scope="col">
                <span className="sr-only">remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {tray.burs.map((b, i) => (
              <tr key={i} className="border-t border-hair align-middle">
                <td className="py-1.5">
                  <BurProfile bur={b} pxPerMm={8} lying />
                </td>
                <td className="whitespace-nowrap">
                  <select
                    aria-label={`Shape of bur ${i + 1}`}
                    className="field h-8 w-[104px] px-1.5"
                    value={b.shape}
                    onChange={(e) => set(i, { shape: e.target.value as BurShape })}
                  >
                    {Object.entries(BUR_SHAPES).map(([id, words]) => (
                      <option key={id} value={id}>
                        {words}
                      </option>
                    ))}
                  </select>
                  <span className="ml-1.5 text-tiny text-ink-2">{isoDiameter(b)}</span>
                </td>
                {SIZES.map(([key, words]) => (
                  <td key={key} className="pl-2">
                    {key === 'tipMm' && !hasTip(b.shape) ? (
                      <span className="text-ink-3">–</span>
                    ) : (
                      <NumberOnceDone
                        label={`${words} of bur ${i + 1}, mm`}
                        className="field h-8 w-[58px] px-1.5 text-right"
                        value={b[key]}
                        min={BUR_LIMITS[key].min}
                        max={BUR_LIMITS[key].max}
                        step={0.1}
                        digits={1}
                        unit="mm"
                        onTaken={(mm) => set(i, { [key]: mm })}
                      />
                    )}
                  </td>
                ))}
                <td className="pl-2">
                  <select
                    aria-label={`Grit of bur ${i + 1}`}
                    className="field h-8 w-[168px] px-1.5"
                    value={b.grit}
                    onChange={(e) => set(i, { grit: e.target.value as Grit })}
                  >
                    {Object.entries(GRITS).map(([id, { um, ring }]) => (
                      <option key={id} value={id}>
                        {id}, {um}, {ring}
                      </option>
                    ))}
                  </select>
                </td>
                <td className="pl-3">
                  {finishes(b)
                    ? 'finishes'
                    : engagements(b)
                        .map((e) => number(e.depthMm, 2))
                        .sort()
                        .join(' · ') || 'no depth of its own'}
                </td>
                <td className="pl-2">
                  <Note bur={b} at={i} set={(note) => set(i, { note })} />
                </td>
                <td>
                  <button
                    type="button"
                    className="flex size-8 items-center justify-center rounded-md text-ink-2 hover:bg-leaf"
                    aria-label={`Take ${burName(b)} out`}
                    onClick={() => change({ ...tray, burs: tray.burs.filter((_, n) => n !== i) })}
                  >
                    <X size={15} aria-hidden="true" />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <button
        type="button"
        className="btn btn-ghost mt-3"
        disabled={tray.burs.length >= TRAY_LIMITS.burs}
        onClick={() => change({ ...tray, burs: [...tray.burs, NEW_BUR] })}
      >
        <Plus size={15} aria-hidden="true" /> Put a bur in
      </button>
    </>
  );
}

/** Shapes without a tip of their own have their largest diameter there. */
const sized = (b: Bur): Bur => (hasTip(b.shape) ? b : { ...b, tipMm: b.largestMm });

/** What the house calls a bur; taken when the field is left. */
function Note({ bur, at, set }: { bur: Bur; at: number; set: (note: string) => void }) {
  const [text, setText] = useState(bur.note ?? '');
  return (
    <input
      className="field h-8 w-[120px] px-1.5"
      aria-label={`What the house calls bur ${at + 1}`}
      maxLength={80}
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => text !== (bur.note ?? '') && set(text.trim())}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  );
}
