import { frontLandmarks } from '@radiant/contract';
import { linked, type Px, scannedSize, type ToothMeasure, UPPER_TEN } from '@radiant/core';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { useContour } from '../../engine/use-contour.js';
import type { ArchView } from '../../engine/views.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import type { PhotoScan } from './use-photo-on-scan.js';

/** Where the scan has a landmark, in the photograph. */
export interface ScanPlace {
  readonly id: string;
  readonly px: Px;
}

/**
 * A mark that lies further from the scan's own place than this is told, mm: more than both hands and the gum's give.
 * House limit.
 */
const APART_MM = 0.5;

/** Lengths and widths of the scan beside those of the photograph, with both errors; which is used stands in bold. */
export function LinkedMeasures({
  measures,
  match,
  missing,
  onTakeAll,
}: {
  measures: readonly ToothMeasure[];
  match: PhotoScan;
  missing: readonly ScanPlace[];
  onTakeAll: ((places: readonly ScanPlace[]) => void) | undefined;
}) {
  const contour = useContour();
  const { data } = useSection('read');
  if (contour.state !== 'ready') return null;
  // A length between places that were taken from the scan would only repeat it.
  const repeated = new Set(
    frontLandmarks(data)
      .filter((m) => m.from === 'scan')
      .map((m) => m.tooth),
  );
  return (
    <>
      <Match match={match} missing={missing} onTakeAll={onTakeAll} />
      {measures.some((m) => m.length || m.width) && (
        <Table existing={contour.arch.existing} measures={measures.filter((m) => !repeated.has(m.tooth))} />
      )}
    </>
  );
}

/** How well the photograph lies on the scan, and what that is good for. */
function Match({
  match,
  missing,
  onTakeAll,
}: {
  match: PhotoScan;
  missing: readonly ScanPlace[];
  onTakeAll: ((places: readonly ScanPlace[]) => void) | undefined;
}) {
  const name = useToothLabel();
  const mayWrite = useMayWrite('read');
  if (match.state === 'none' || match.state === 'waiting') return null;
  if (match.state === 'apart')
    return (
      <section aria-label="Photograph on the scan" className="mt-5 text-note">
        <h2 className="subtitle">Photograph on the scan</h2>
        <p className="mt-1 text-ink-2">{match.sentence}</p>
      </section>
    );
  const { found } = match;
  const apart = found.places.filter((p) => (p.offMm ?? 0) > APART_MM).sort((p, q) => (q.offMm ?? 0) - (p.offMm ?? 0));
  return (
    <section aria-label="Photograph on the scan" className="mt-5 text-note">
      <h2 className="subtitle">Photograph on the scan</h2>
      <p className="mt-1">
        matched from {found.marks} marked places, <b className="font-[650]">{number(found.rmsMm, 2)} mm</b> off
      </p>
      {apart.length > 0 && (
        <p className="mt-1 text-removed-ink">
          {apart
            .slice(0, 3)
            .map((p) => `${p.kind} of ${name(p.tooth)} ${number(p.offMm ?? 0, 1)} mm`)
            .join(', ')}{' '}
          beside the scan’s: look at the mark, or at the days both were taken on
        </p>
      )}
      {mayWrite && onTakeAll && missing.length > 0 && (
        <button type="button" className="btn btn-ghost mt-2" onClick={() => onTakeAll(missing)}>
          Set the {missing.length} missing from the scan
        </button>
      )}
    </section>
  );
}

function Table({ existing, measures }: { existing: ArchView['existing']; measures: readonly ToothMeasure[] }) {
  const name = useToothLabel();
  const rows = UPPER_TEN.flatMap((tooth) => {
    const photo = measures.find((m) => m.tooth === tooth);
    const scan = existing.find((e) => e.tooth === tooth);
    const sided = (mm: number | undefined) => (mm === undefined ? undefined : scannedSize(mm));
    return photo?.length || photo?.width || (scan && tooth % 10 <= 3)
      ? [
          {
            tooth,
            length: linked(sided(scan?.lengthMm), photo?.length),
            width: linked(sided(scan?.widthMm), photo?.width),
          },
        ]
      : [];
  });
  const apart = rows.some((r) => r.length.apart || r.width.apart);
  return (
    <details className="mt-5 text-note">
      <summary className="subtitle cursor-pointer">
        Scan beside photograph{apart && <span className="font-normal text-removed-ink"> · some are apart</span>}
      </summary>
      <FigureTable className="mt-1 text-fine" aria-label="Scan beside photograph">
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
                side ? (
                  <span
                    className={is ? 'font-[650]' : 'text-ink-2'}
                  >{`${number(side.value, 2)} ±${number(side.pm, 2)}`}</span>
                ) : (
                  '–'
                );
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
      <p className="mt-1.5 text-tiny text-ink-2">
        Bold is used, here and in propose: the smaller error. The scan’s wherever there is one, since a photograph leans
        on its scale and perspective.{' '}
        {apart &&
          'Where they are further apart than both errors, look at the marks, the scale and the days they were taken on.'}
      </p>
    </details>
  );
}
