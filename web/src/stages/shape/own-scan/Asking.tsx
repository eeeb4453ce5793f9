import type { Jaw } from '@radiant/core';
import { useState } from 'react';
import { number } from '../../../ui/format.js';
import { Empty } from '../../../ui/StageLayout.js';
import type { useOwnScan } from './use-own-scan.js';

const UNITS: readonly (readonly [number, string])[] = [
  [1, 'millimetres'],
  [10, 'centimetres'],
  [1000, 'metres'],
  [25.4, 'inches'],
  [0.001, 'micrometres'],
];

/** Asked before anything is laid: which jaw, and the unit where the size speaks against millimetres. */
export function Asking({
  opened,
  sentence,
  busy,
  begin,
  back,
}: {
  opened: Parameters<ReturnType<typeof useOwnScan>['begin']>[0];
  sentence: string | undefined;
  busy: boolean;
  begin: ReturnType<typeof useOwnScan>['begin'];
  back: React.ReactNode;
}) {
  const [unit, setUnit] = useState(opened.unitMm);
  const [jaw, setJaw] = useState<Jaw>(opened.jaw);
  return (
    <Empty title={sentence ? 'This does not look like a jaw' : 'Which unit is it in?'}>
      <p className="mb-4">
        {sentence ?? `The scan is ${number(opened.widest, 2)} across. A jaw in millimetres would be 40 to 90.`}
      </p>
      <div className="mb-4 flex items-end justify-center gap-3 text-left text-note">
        <label>
          <span className="mb-1 block">Unit</span>
          <select className="field" value={unit} onChange={(e) => setUnit(Number(e.target.value))}>
            {UNITS.map(([mm, word]) => (
              <option key={mm} value={mm}>
                {word}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="mb-1 block">Jaw</span>
          <select className="field" value={jaw} onChange={(e) => setJaw(e.target.value as Jaw)}>
            <option value="upper">upper</option>
            <option value="lower">lower</option>
          </select>
        </label>
        <button type="button" className="btn" disabled={busy} onClick={() => void begin(opened, jaw, unit)}>
          Go on
        </button>
      </div>
      {back}
    </Empty>
  );
}
