import type { Who } from '@radiant/contract';
import { usePracticeSettings } from '../data/use-practice-settings.js';
import { Trouble, Waiting } from '../ui/Waiting.js';
import { Fees } from './Fees.js';
import { HouseCeramics } from './HouseCeramics.js';
import { HouseRulesTable } from './HouseRulesTable.js';
import { HouseScales } from './HouseScales.js';
import { PracticePage } from './PracticePage.js';

/** What match and decide go by in this house: its ceramics and scales, its rules, its fees. */
export function Materials({ who }: { who: Who }) {
  const { shown, trouble, retry, refusal, set } = usePracticeSettings();
  const mayWrite = who.role === 'dentist';
  return (
    <PracticePage who={who} title="Ceramics, shades and rules">
      {!shown ? (
        trouble ? (
          <Trouble sentence={trouble} retry={retry} />
        ) : (
          <Waiting what="what the house has set" />
        )
      ) : (
        <>
          {!mayWrite && <p className="mb-4 text-ink-2">A dentist of the practice changes these.</p>}
          {refusal && (
            <p role="alert" className="mb-4 text-stop">
              {refusal}
            </p>
          )}
          <fieldset disabled={!mayWrite} className="min-w-0">
            <HouseCeramics plates={shown.plates} set={(plates) => set({ plates })} />
            <HouseScales scales={shown.scales} set={(scales) => set({ scales })} />
            <HouseRulesTable off={shown.rulesOff} limits={shown.ruleLimits} set={set} />
            <Fees fees={shown.fees} currency={shown.currency} set={set} />
          </fieldset>
        </>
      )}
    </PracticePage>
  );
}
