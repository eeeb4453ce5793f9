import { type BookedVisit, EMPTY_SECTIONS, type StockLot, type TreatSection } from '@radiant/contract';
import { type Day, dayOf, isoOf } from '@radiant/core';
import type { RecipeName } from '@radiant/standins';

/** A visit of the sample practice begins so late and ends so late, minutes, one after the other. */
const LATE = [
  [3, 9],
  [6, -4],
  [2, 17],
  [0, 5],
] as const;

/** On how many teeth was worked. */
const TEETH: Readonly<Partial<Record<RecipeName, number>>> = { Turnstone: 4, Sandpiper: 4, Plover: 6, Curlew: 1 };

/** What was held of a sample case before today: when it began and how long it truly took. */
export function demoTreat(name: RecipeName, visits: readonly BookedVisit[], today: Day, by: string): TreatSection {
  const teeth = TEETH[name] ?? 1;
  const held = visits.filter((v) => dayOf(v.day) < today);
  return {
    ...EMPTY_SECTIONS.treat,
    runs: held.map((v, i) => {
      const [begin, end] = LATE[(i + teeth) % LATE.length] ?? LATE[0];
      const at = (minute: number) => new Date(Date.parse(`${v.day}T00:00:00Z`) + minute * 60_000).toISOString();
      return {
        visit: v.kind,
        round: 1,
        by,
        begunAt: at(v.from + begin),
        endedAt: at(v.from + v.minutes + end),
        teeth,
      };
    }),
  };
}

/** What lies in the sample practice's cupboards. Generic names; item numbers of the range for examples. */
export const demoStock = (today: Day): StockLot[] =>
  (
    [
      ['phosphoric acid 37 %', '09506000134352', 'P2214', 400],
      ['silane', '09506000134369', 'S088', 160],
      ['adhesive, one bottle', '09506000134376', 'A5510', 90],
      ['resin cement, light-cured, clear', '09506000134383', 'R7-31', 210],
      ['hydrofluoric acid 5 %', '09506000134390', 'H19', -12],
      ['desensitiser', '09506000134406', 'D402', 330],
    ] as const
  ).map(([name, item, lot, days]) => ({ name, item, lot, expiry: isoOf(today + days) }));
