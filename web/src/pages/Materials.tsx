import type { Who } from '@radiant/contract';
import { todayIn } from '../data/today.js';
import { Fees } from './Fees.js';
import { HouseCeramics } from './HouseCeramics.js';
import { HousePage } from './HousePage.js';
import { HouseRulesTable } from './HouseRulesTable.js';
import { HouseScales } from './HouseScales.js';
import { HouseStock } from './HouseStock.js';

/** What match and decide go by in this house: its ceramics and scales, its rules, its fees, its stock. */
export const Materials = ({ who }: { who: Who }) => (
  <HousePage who={who} title="Ceramics, shades and rules">
    {(shown, set) => (
      <>
        <HouseCeramics plates={shown.plates} set={(plates) => set({ plates })} />
        <HouseScales scales={shown.scales} set={(scales) => set({ scales })} />
        <HouseRulesTable off={shown.rulesOff} limits={shown.ruleLimits} set={set} />
        <HouseStock stock={shown.stock} today={todayIn(shown.clinic.timeZone)} set={(stock) => set({ stock })} />
        <Fees fees={shown.fees} currency={shown.currency} set={set} />
      </>
    )}
  </HousePage>
);
