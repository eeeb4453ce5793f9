import { linked, SCAN_PM_MM, type ToothMeasure, UPPER_SIX } from '@radiant/core';
import { useToothLabel } from '../data/case-context.js';
import { FigureTable } from '../shell/FigureTable.js';
import { number } from '../shell/format.js';
import { useContour } from '../workers/use-contour.js';

/** Lengths and widths of the scan beside those of the photograph, with both errors; which is used stands in bold. */
export function LinkedMeasures({ measures }: { measures: readonly ToothMeasure[] }) {
  const contour = useContour();
  const name = useToothLabel();
  if (contour.state !== 'ready' || !measures.some((m) => m.length || m.width)) return null;
  const rows = UPPER_SIX.flatMap((tooth) => {
    const photo = measures.find((m) => m.tooth === tooth);
    const scan = contour.arch.existing.find((e) => e.tooth === tooth);
    const sided = (mm: number | undefined) => (mm === undefined ? undefined : { value: mm, pm: SCAN_PM_MM });
    return photo || scan ? [{ tooth, length: linked(sided(scan?.lengthMm), photo?.length), width: linked(sided(scan?.widthMm), photo?.width) }] : [];
  });
  const apart = rows.some((r) => r.length.apart || r.width.apart);
  return (
    <details className="mt-5 text-[13px]">
      <summary className="subtitle cursor-pointer">
        Scan beside photograph{apart && <span className="font-normal text-removed-ink"> · some are apart</span>}
      </summary>
      <FigureTable className="mt-1 text-[12.5px]" aria-label="Scan beside photograph">
        <thead>
          <tr>
            <th scope="col">mm</th>
            <th scope="col">scan</th>
            <th scope="col">photograph</th>
          </tr>
        </thead>
        <tbody>
          {rows.flatMap(({ tooth, ...of }) =>
            (['length', 'width'] as const).map((key) => {
              const { scan, photo, used, why, apart: off } = of[key];
              const cell = (side: typeof scan, is: boolean) =>
                side ? <span className={is ? 'font-[650]' : 'text-ink-2'}>{`${number(side.value, 2)} ±${number(side.pm, 2)}`}</span> : '–';
              return (
                <tr key={`${tooth} ${key}`} title={why} className={off ? 'text-removed-ink' : ''}>
                  <td>
                    {name(tooth)} {key}
                  </td>
                  <td>{cell(scan, used === 'scan')}</td>
                  <td>{cell(photo, used === 'photo')}</td>
                </tr>
              );
            }),
          )}
        </tbody>
      </FigureTable>
      <p className="mt-1.5 text-[12px] text-ink-2">
        Bold is used: the smaller error. The scan’s wherever there is one, since a photograph leans on its scale and perspective.{' '}
        {apart && 'Where they are further apart than both errors, look at the marks, the scale and the days they were taken on.'}
      </p>
    </details>
  );
}
