import { type Fdi, LEAST_OVER_PULP, PULP_PM_MM, restorationOf, type TargetTold, type TargetZone } from '@radiant/core';
import type { ReactNode } from 'react';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import type { Targets } from '../../engine/use-targets.js';
import { Comments } from '../../shell/Comments.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { ReadOnlyNote, Refused } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { DesignFields } from './DesignFields.js';
import { FinishCourse } from './FinishCourse.js';
import { ThicknessFields } from './ThicknessFields.js';
import { WayOut } from './WayOut.js';

const THIRDS = ['cervical', 'middle', 'incisal'] as const;
const PARTS = ['mesial', 'middle', 'distal'] as const;
const REST: readonly TargetZone[] = ['edge', 'mesial side', 'distal side', 'palatal'];

/** What the chosen tooth's target preparation comes to. */
export function TargetPanel({ targets, children }: { targets: Targets; children?: ReactNode }) {
  const { tooth } = useCase();
  const reduce = useSection('reduce');
  const name = useToothLabel();
  const sentence = useSentence();
  const { design } = restorationOf(tooth, reduce.data);
  const own = targets.views.get(tooth);
  return (
    <>
      <ReadOnlyNote section="reduce" />
      <Refused sentence={reduce.refusal?.detail} />
      <DesignFields />
      <ThicknessFields />
      <h2 className="title">
        {name(tooth)} · {design.name}
      </h2>
      <p className="mb-3 text-note text-ink-2">{design.reason}</p>
      {own ? (
        <>
          <Sums tooth={tooth} told={own.told} comesOff={design.kind !== 'direct'} />
          <Face told={own.told} />
          <FinishCourse margin={own.margin} />
          {own.told.pulp.leftMm < 2 * LEAST_OVER_PULP.mm && (
            <p className="finding mb-2 text-note" data-weight="stop">
              {name(tooth)}: by a rough estimate for its kind and age about{' '}
              {number(Math.max(0, own.told.pulp.leftMm), 1)} mm would be left over the pulp; under{' '}
              {number(LEAST_OVER_PULP.mm, 1)} mm it suffers ({LEAST_OVER_PULP.source.text}). Measure it on the
              radiograph before anything is cut; treat the tooth first, cut less, or move it first.
            </p>
          )}
          {own.notes.map((n) => (
            <p key={n} className="finding text-note" data-weight="watch">
              {sentence(n)}
            </p>
          ))}
          <p className="mt-3 text-tiny text-ink-2">
            Target of contour and thickness on the scanned tooth, rounded as burs leave it; its walls lean as the design
            says. Enamel is the norm of most incisors at that height, not this tooth’s. The pulp is not seen on a scan:
            look at the radiograph before anything is cut.
          </p>
        </>
      ) : (
        <p className="text-ink-2">
          {targets.troubles.has(tooth) ? sentence(targets.troubles.get(tooth) ?? '') : 'No target for this tooth yet.'}
        </p>
      )}
      {children}
      <Comments stage="reduce" />
    </>
  );
}

/** @param comesOff what is bonded in the mouth never does */
function Sums({ tooth, told, comesOff }: { tooth: Fdi; told: TargetTold; comesOff: boolean }) {
  const { sure, perhaps } = told.dentinMm2;
  return (
    <FigureTable className="mb-4 text-note [&_th]:whitespace-nowrap" aria-label="What the preparation takes">
      <tbody>
        <tr>
          <th scope="row">volume</th>
          <td>{number(told.removedMm3, 1)} mm³</td>
          <td>{number(100 * told.removedShare, 0)} % of the crown</td>
        </tr>
        <tr>
          <th scope="row">into line</th>
          <td>{number(told.alignMm3, 1)} mm³</td>
          <td className="text-ink-2">of it, before any ceramic</td>
        </tr>
        {comesOff && <WayOut tooth={tooth} told={told} />}
        <tr>
          <th scope="row">face cut</th>
          <td>{number(told.faceMm2, 0)} mm²</td>
          <td />
        </tr>
        <tr>
          <th scope="row">dentin met</th>
          <td className={sure > 0.5 ? 'font-semibold text-stop' : ''}>{number(sure, 1)} mm²</td>
          <td className={perhaps > 0.5 ? 'text-removed-ink' : 'text-ink-2'}>{number(perhaps, 1)} more where thin</td>
        </tr>
        <tr>
          <th scope="row">over the pulp</th>
          <td className={told.pulp.leftMm < 2 * LEAST_OVER_PULP.mm ? 'font-semibold text-stop' : ''}>
            about {number(Math.max(0, told.pulp.leftMm), 1)} mm
          </td>
          <td className="text-ink-2">
            ±{number(PULP_PM_MM, 1)}, at the {told.pulp.place}
          </td>
        </tr>
      </tbody>
    </FigureTable>
  );
}

/** The face in ninths, mesial to distal, and what lies beside it. */
function Face({ told }: { told: TargetTold }) {
  const zone = (z: TargetZone) => told.zones.find((own) => own.zone === z);
  const over = (z: TargetZone) => {
    const own = zone(z);
    return own && `${number(own.least, 2)} to ${number(own.most, 2)} mm over ${number(own.areaMm2, 1)} mm²`;
  };
  return (
    <>
      <FigureTable className="text-note [&_td]:pl-3" aria-label="Tooth to remove over the face">
        <thead>
          <tr>
            <th scope="col">mm</th>
            {PARTS.map((p) => (
              <th key={p} scope="col" className="pl-3">
                {p}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {THIRDS.map((third) => (
            <tr key={third}>
              <th scope="row">{third}</th>
              {PARTS.map((p) => {
                const own = zone(`${third} ${p}`);
                return (
                  <td key={p} title={over(`${third} ${p}`)}>
                    <b className="font-semibold">{own ? number(own.median, 2) : '–'}</b>
                    {own && <span className="block text-tiny text-ink-2">to {number(own.deep, 2)}</span>}
                  </td>
                );
              })}
            </tr>
          ))}
          {REST.filter(zone).map((z) => {
            const own = zone(z);
            return (
              <tr key={z}>
                <th scope="row">{z}</th>
                <td colSpan={3} title={over(z)}>
                  <b className="font-semibold">{number(own?.median ?? 0, 2)}</b>{' '}
                  <span className="text-tiny text-ink-2">to {number(own?.deep ?? 0, 2)}</span>
                </td>
              </tr>
            );
          })}
        </tbody>
      </FigureTable>
      <p className="mt-1 text-tiny text-ink-2">
        Half of a zone stays under the first figure, 95 % of it under the second; point at one for its extremes.
      </p>
    </>
  );
}
