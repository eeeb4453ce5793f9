import {
  type BiteRoom,
  type ContourPlan,
  type DesignChoice,
  ROOM_LIMITS,
  ROOM_PLACES,
  type RoomPlace,
  restorationOf,
  SCAN_PM_MM,
  takesRoom,
} from '@radiant/core';
import { useMemo } from 'react';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import type { CaseClient } from '../../engine/case-client.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import type { LowerState } from '../../engine/use-lower.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';

/** What the preparation of the chosen tooth leaves in the bite, beside what the restoration needs there. */
export function RoomTable({
  client,
  plan,
  choice,
  lower,
}: {
  client: CaseClient | undefined;
  plan: ContourPlan;
  choice: DesignChoice;
  lower: LowerState;
}) {
  const { tooth } = useCase();
  const name = useToothLabel();
  const { data, set } = useSection('reduce');
  const mayWrite = useMayWrite('reduce');
  const { design } = restorationOf(tooth, choice);
  const cut = (place: RoomPlace, moreMm: number) => {
    const others = (data.room ?? []).filter((r) => r.tooth !== tooth || r.place !== place);
    set({ ...data, room: moreMm > 0 ? [...others, { tooth, place, moreMm }] : others });
  };
  const input = useMemo(() => [tooth, choice] as const, [tooth, choice]);
  const ready = lower.state === 'ready' && plan[tooth];
  const asked = useAsked(ready ? client : undefined, plan, 'roomInBite', input);
  const rooms = shownOf(asked);
  // What the last design lacked is not said of the next while that is being worked out.
  const short = asked.state === 'ready' ? (asked.value?.filter((r) => missing(r) > SCAN_PM_MM) ?? []) : [];
  return (
    <>
      <h2 className="subtitle mt-5 mb-1">Room in the bite</h2>
      {lower.state === 'none' ? (
        <p className="text-note text-ink-2">
          There is no scan of the lower jaw in the bite: close the teeth on wax and measure it.
        </p>
      ) : lower.state === 'failed' ? (
        <p className="text-note text-stop">{lower.sentence}</p>
      ) : !rooms ? (
        <p className="text-note text-ink-2">Being worked out …</p>
      ) : rooms.length === 0 ? (
        <p className="text-note text-ink-2">No tooth stands across what is covered of {name(tooth)}.</p>
      ) : (
        <>
          <FigureTable className="text-note [&_td]:pl-3" aria-label="Room in the bite">
            <thead>
              <tr>
                <th scope="col">mm</th>
                <th scope="col" className="pl-3">
                  needs
                </th>
                <th scope="col" className="pl-3">
                  for the bite
                </th>
                <th scope="col" className="pl-3">
                  closed
                </th>
                <th scope="col" className="pl-3">
                  sliding
                </th>
              </tr>
            </thead>
            <tbody>
              {rooms.map((r) => (
                <tr key={r.place}>
                  <th scope="row">{r.place}</th>
                  <td>{number(r.wantedMm, 1)}</td>
                  <td>
                    {r.forBiteMm > 0 ? `+${number(r.forBiteMm, 2)}` : '–'}
                    {r.forBiteMm > 0 && mayWrite && (
                      <button
                        type="button"
                        className="how ml-1"
                        aria-label={`Cut nothing for the bite at the ${r.place}`}
                        onClick={() => cut(r.place as RoomPlace, 0)}
                      >
                        leave it
                      </button>
                    )}
                  </td>
                  <td className={tone(r.wantedMm - r.closedMm)}>{number(r.closedMm, 2)}</td>
                  <td className={tone(r.wantedMm - r.movedMm)}>{number(r.movedMm, 2)}</td>
                </tr>
              ))}
            </tbody>
          </FigureTable>
          {short.map((r) => (
            <p key={r.place} className="finding mt-2 text-note" data-weight="stop">
              {name(tooth)}, {r.place}: {number(missing(r), 2)} mm too little for the {number(r.wantedMm, 1)} mm that
              the design needs, {r.closedMm <= r.movedMm ? 'in the closed bite' : 'when the jaw slides'}.{' '}
              {r.forBiteMm > 0
                ? 'What was cut for it has not brought it: the tooth across stands beside it. Move the plan away from it, or choose a design that is made thinner.'
                : 'Move the plan away from it, cut more there, or choose a design that is made thinner.'}{' '}
              {mayWrite && r.forBiteMm === 0 && isRoomPlace(r.place) && takesRoom(design, r.place) && (
                <button
                  type="button"
                  className="how"
                  onClick={() => cut(r.place as RoomPlace, Math.min(ROOM_LIMITS.max, r.forBiteMm + upTo(missing(r))))}
                >
                  cut {number(upTo(missing(r)), 2)} mm more there
                </button>
              )}
            </p>
          ))}
          <p className="mt-1 text-tiny text-ink-2">
            Least space between preparation and the teeth across, closed and on 3 mm to the front and the sides, led by
            the planned teeth. A scan of closed teeth shows no joint: check with paper and wax.
          </p>
        </>
      )}
    </>
  );
}

const isRoomPlace = (place: BiteRoom['place']): place is RoomPlace =>
  (ROOM_PLACES as readonly string[]).includes(place);

/** To the next twentieth of a millimetre. */
const upTo = (mm: number): number => Math.ceil(mm * 20 - 1e-9) / 20;

const missing = (r: BiteRoom) => r.wantedMm - Math.min(r.closedMm, r.movedMm);
const tone = (mm: number) => (mm > SCAN_PM_MM ? 'font-semibold text-stop' : '');
