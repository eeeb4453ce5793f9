import type { Who } from '@radiant/contract';
import { Fees } from './Fees.js';
import { HouseCeramics } from './HouseCeramics.js';
import { HousePage } from './HousePage.js';
import { HouseRulesTable } from './HouseRulesTable.js';
import { HouseScales } from './HouseScales.js';

/** What match and decide go by in this house: its ceramics and scales, its rules, its fees. */
export const Materials = ({ who }: { who: Who }) => (
  <HousePage who={who} title="Ceramics, shades and rules">
    {(shown, set) => (
      <>
        <HouseCeramics plates={shown.plates} set={(plates) => set({ plates })} />
        <HouseScales scales={shown.scales} set={(scales) => set({ scales })} />
        <HouseRulesTable off={shown.rulesOff} limits={shown.ruleLimits} set={set} />
        <Fees fees={shown.fees} currency={shown.currency} set={set} />
      </>
    )}
  </HousePage>
);
