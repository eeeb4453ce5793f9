import { burName, type PrepFinding, type PrepVerdict, type Recut } from '@radiant/core';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { number } from '../../ui/format.js';
import { findingKey } from './words.js';

/** What is still to cut, bur by bur in the order of the tray; what was taken as it is stands no longer in it. */
export function RecutList({
  verdict: { recuts, judged, teeth },
  onChoose,
}: {
  verdict: PrepVerdict;
  onChoose: (finding: PrepFinding) => void;
}) {
  const name = useToothLabel();
  const sentence = useSentence();
  const { tooth } = useCase();
  const { data } = useSection('verify');
  const taken = new Set(data.accepted.map(findingKey));
  const own = recuts.filter((r) => r.findings.some((f) => !taken.has(findingKey(f))));
  if (own.length === 0 && teeth.length === judged.length)
    return (
      <p className="px-6 pt-16 text-note">
        Nothing is left to cut{recuts.length > 0 ? `; ${recuts.length} places were taken as they are` : ''}.
      </p>
    );
  return (
    <div className="h-full overflow-y-auto px-6 pt-16 pb-6">
      <FigureTable className="w-full text-note [&_td]:text-left [&_th]:text-left" aria-label="What is still to cut">
        <thead>
          <tr>
            <th scope="col">bur</th>
            <th scope="col" className="pr-5 pl-3">
              tooth
            </th>
            <th scope="col">where</th>
            <th scope="col" className="!text-right">
              mm more
            </th>
            <th scope="col" className="pl-5">
              how
            </th>
          </tr>
        </thead>
        <tbody>
          {own.map((r, i) => {
            const bur = burOf(r);
            const before = own[i - 1];
            return (
              <tr key={findingKey(r.findings[0])} className={r.tooth === tooth ? 'bg-plum-soft' : ''}>
                <td className="max-w-[190px]">{before && burOf(before) === bur ? '″' : bur}</td>
                <td className="pr-5 pl-3 font-semibold">{name(r.tooth)}</td>
                <td>
                  <button type="button" className="how text-left" onClick={() => onChoose(r.findings[0])}>
                    {sentence(r.place)}
                  </button>
                </td>
                <td className="!text-right font-semibold">{r.cutMm > 0 ? number(r.cutMm, 2) : '–'}</td>
                <td className="max-w-[300px] pl-5">{sentence(howOf(r))}</td>
              </tr>
            );
          })}
        </tbody>
      </FigureTable>
      {teeth.length < judged.length && (
        <p className="mt-3 text-note" role="status">
          Measuring tooth {teeth.length + 1} of {judged.length} …
        </p>
      )}
      <p className="mt-3 text-tiny text-ink-2">
        In the order of the tray, so that each bur is taken up once. The treating clinician decides what is cut; after
        it scan again, and the list gets shorter.
      </p>
    </div>
  );
}

const burOf = ({ bur }: Recut): string => (bur ? burName(bur) : 'none in the tray');

function howOf({ groove, findings: [f] }: Recut): string {
  if (groove?.kind === 'cut') return `${groove.engagement.how}: ${number(groove.depthMm, 2)} mm deep, then join`;
  if (groove?.nearest) return `${groove.nearest.how}: ${number(groove.nearest.depthMm, 2)} mm, the rest by the index`;
  return groove ? 'freehand, and look with the index' : (f.todo ?? '');
}
