import type { DirectTold } from '@radiant/core';
import { number } from '../../ui/format.js';
import { EdgeMap } from './EdgeMap.js';

/** What is particular to the kind of work, and how deep a probe stands before enamel is laid. */
export function KindFigures({ told }: { told: DirectTold }) {
  const { bevel, worn, neck, emerges, gauge, proudMm3, proudMm } = told;
  const rows: [string, string][] = [
    ...(bevel && bevel.breakMm2 > 0
      ? ([
          ['surface of the break', `${number(bevel.breakMm2, 1)} mm²`],
          ['bevel, facial', `${number(bevel.frontMm, 1)} mm`],
          ['bevel, palatal', bevel.behindMm > 0 ? `${number(bevel.behindMm, 1)} mm` : 'none'],
          ['enamel that it takes', `${number(bevel.cutMm3, 1)} mm³`],
        ] as [string, string][])
      : []),
    ...(worn
      ? ([
          ['worn face', `${number(worn.facetMm2, 1)} mm²`],
          [worn.marked ? 'dentin, as marked' : 'dentin within its walls', `${number(worn.islandMm2, 1)} mm²`],
          ['trough', `${number(worn.troughMm3, 1)} mm³`],
          ['thinnest wall', worn.wallMm === undefined ? 'no trough' : `${number(worn.wallMm, 2)} mm`],
          ['edge, front to back', `${number(worn.edgeMm, 1)} mm`],
        ] as [string, string][])
      : []),
    ...(neck
      ? ([
          ['deepest place', `${number(neck.deepMm, 1)} mm`],
          ['high × wide', `${number(neck.highMm, 1)} × ${number(neck.wideMm, 1)} mm`],
          ['from where the crown ends', `${number(neck.toNeckMm, 1)} mm`],
          ['bevel, side at the edge', `${number(neck.bevelMm, 1)} mm`],
          ['enamel that it takes', `${number(neck.cutMm3, 1)} mm³`],
        ] as [string, string][])
      : []),
    ...(proudMm3 > 0.3
      ? ([['to grind before', `${number(proudMm3, 1)} mm³, ${number(proudMm, 1)} mm deep`]] as [string, string][])
      : []),
    ...(['right', 'left'] as const).flatMap((side): [string, string][] => {
      const own = emerges[side];
      return own ? [[`leaves the gum, ${side} side`, `${number(own.deg, 0)}°`]] : [];
    }),
  ];
  return (
    <>
      {rows.length > 0 && (
        <dl className="figures mb-3 grid grid-cols-[1fr_auto] gap-x-4 gap-y-0.5 text-note" aria-label="Of this work">
          {rows.map(([k, v]) => (
            <div key={k} className="contents">
              <dt>{k}</dt>
              <dd className="text-right tabular-nums">{v}</dd>
            </div>
          ))}
        </dl>
      )}
      {worn && <EdgeMap worn={worn} />}
      {gauge.length > 0 && (
        <table className="figures mb-4 w-full text-note" aria-label="Gauge">
          <caption className="subtitle mb-1 text-left">The probe, before enamel is laid</caption>
          <thead>
            <tr>
              <th scope="col">from the edge</th>
              <th scope="col">stands, mm</th>
              <th scope="col">dentin, mm</th>
            </tr>
          </thead>
          <tbody>
            {gauge.map((g) => (
              <tr key={g.fromEdgeMm}>
                <th scope="row">{number(g.fromEdgeMm, 1)} mm</th>
                <td>{number(g.enamelMm, 2)}</td>
                <td>{g.dentinMm > 0 ? number(g.dentinMm, 2) : '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
