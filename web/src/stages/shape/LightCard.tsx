import {
  type ContourPlan,
  type FaceOfTooth,
  type Fdi,
  type Jaw,
  jawOf,
  LINE_ANGLE_DEG,
  LOWER_TEN,
  type ReflectingFace,
  sideOf,
  UPPER_TEN,
} from '@radiant/core';
import { useMemo } from 'react';
import { useToothLabel } from '../../data/case-context.js';
import { type Asked, shownOf, useAsked } from '../../engine/use-asked.js';
import { type ContourState, clientOf } from '../../engine/use-contour.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { number } from '../../ui/format.js';

/** The reflecting faces of a jaw; nothing is asked while none is named. */
export function useFaces(contour: ContourState, plan: ContourPlan, jaw: Jaw | undefined): Asked<FaceOfTooth[]> {
  const input = useMemo(() => jaw && ([jaw] as const), [jaw]);
  return useAsked(clientOf(contour), plan, 'faces', input);
}

/** The front teeth of one side, from the middle outwards. */
const sideFrom = (jaw: Jaw): readonly Fdi[] =>
  (jaw === 'upper' ? UPPER_TEN : LOWER_TEN)
    .filter((t) => jawOf(t) === jaw && sideOf(t) === 'right' && t % 10 <= 3)
    .sort((a, b) => (a % 10) - (b % 10));
const fellowOf = (t: Fdi): Fdi => (t < 30 ? t + 10 : t - 10);

/** The width that the eye sees: from line angle to line angle, left against right, as it is and as planned. */
export function LightCard({ asked, jaw }: { asked: Asked<FaceOfTooth[]>; jaw: Jaw }) {
  const name = useToothLabel();
  const faces = shownOf(asked);
  const of = (t: Fdi) => faces?.find((f) => f.tooth === t);
  return (
    <section aria-label="Light" className="text-note">
      <p className="mb-2 text-ink-2">
        The light goes with the pointer. A tooth looks as wide as its face between the line angles, where the surface
        has turned {LINE_ANGLE_DEG}° away; measured over the middle third.
      </p>
      {asked.state === 'failed' ? (
        <p className="text-stop">{asked.sentence}</p>
      ) : !faces ? (
        <p className="text-ink-2">Measuring …</p>
      ) : (
        <FigureTable aria-label="Width of the reflecting face">
          <thead>
            <tr>
              <th scope="col">teeth</th>
              <th scope="col" colSpan={2}>
                face as it is, mm
              </th>
              <th scope="col" colSpan={2}>
                as planned
              </th>
            </tr>
          </thead>
          <tbody>
            {sideFrom(jaw).map((right) => {
              const [a, b] = [of(right), of(fellowOf(right))];
              if (!a && !b) return null;
              return (
                <tr key={right}>
                  <td className="whitespace-nowrap">
                    {name(right)} | {name(fellowOf(right))}
                  </td>
                  <Pair right={a?.now} left={b?.now} />
                  {a?.planned || b?.planned ? (
                    <Pair right={a?.planned ?? a?.now} left={b?.planned ?? b?.now} />
                  ) : (
                    <td colSpan={2}>–</td>
                  )}
                </tr>
              );
            })}
          </tbody>
        </FigureTable>
      )}
    </section>
  );
}

/** Two faces and by how much they differ, where that is more than can be told. */
function Pair({ right, left }: { right: ReflectingFace | undefined; left: ReflectingFace | undefined }) {
  const words = (f: ReflectingFace | undefined) => (f ? number(f.widthMm, 1) : '–');
  const by = right && left ? left.widthMm - right.widthMm : 0;
  const pm = right && left ? Math.hypot(right.pm, left.pm) : 0;
  return (
    <>
      <td
        className="whitespace-nowrap"
        title={right && left ? `each ± ${number(Math.max(right.pm, left.pm), 1)} mm` : ''}
      >
        {words(right)} | {words(left)}
      </td>
      <td className={`whitespace-nowrap ${Math.abs(by) > pm ? 'font-[650] text-removed-ink' : 'text-ink-2'}`}>
        {right && left ? (Math.abs(by) > pm ? `${number(Math.abs(by), 1)} ±${number(pm, 1)}` : 'alike') : ''}
      </td>
    </>
  );
}
