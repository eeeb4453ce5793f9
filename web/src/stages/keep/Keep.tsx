import { fileWords, JAWS, plannedOn, scanFor } from '@radiant/contract';
import { isUpper, NOTATION_NAMES } from '@radiant/core';
import { Box, FileDown, FileText } from 'lucide-react';
import { useCase } from '../../data/case-context.js';
import { useStages } from '../../shell/stage.js';
import { moment } from '../../ui/format.js';
import { KeyHint, Stage } from '../../ui/StageLayout.js';
import { BeforePrinting } from './BeforePrinting.js';
import { Duplicate } from './Duplicate.js';
import { Handover } from './Handover.js';
import { IndexNote } from './IndexNote.js';

/** Keep: the plan on paper, the case as a file, and who wrote what when. */
export default function Keep() {
  const { detail, notation, who } = useCase();
  const mayKeep = who.role !== 'technician';
  const { sections } = detail;
  const numbers = `${NOTATION_NAMES[notation].short} numbers`;
  const { teeth } = sections.shape.data;
  const upperPlanned = !!plannedOn(detail, 'upper') && teeth.some((t) => isUpper(t.tooth));
  const lowerPlanned = !!plannedOn(detail, 'lower') && teeth.some((t) => !isUpper(t.tooth));
  const ready = upperPlanned || lowerPlanned;
  const isTreated = sections.treat.data.runs.length > 0;
  const isDecided = detail.sections.decide.data.choices.length > 0;
  const isCut = JAWS.some((jaw) => scanFor(detail.files, jaw, 'prepared'));
  return (
    <Stage
      bench={
        <div className="mx-auto flex h-full max-w-[720px] flex-col gap-4 overflow-y-auto px-6 py-6">
          <Handover
            icon={<FileText size={26} aria-hidden="true" />}
            title="The plan on paper"
            words={
              ready
                ? 'A4, PDF, a page for six teeth: planned widths and lengths, sections, depth to remove in each zone with enamel left, burs, and what to watch. Teeth are named as on the screen, and the page says how. Take it chairside or send it with the wax-up.'
                : 'It needs a scan and a planned tooth that stands in it first.'
            }
            action="Make the PDF"
            href={`/api/cases/${detail.id}/plan.pdf?notation=${notation}`}
            name={`${detail.name} plan, ${numbers}.pdf`}
            disabled={!ready}
            also={[
              {
                action: 'A card in A5 for each tooth',
                href: `/api/cases/${detail.id}/plan.pdf?notation=${notation}&form=cards`,
                name: `${detail.name} cards, ${numbers}.pdf`,
              },
              {
                action: 'Six short cards on A4',
                href: `/api/cases/${detail.id}/plan.pdf?notation=${notation}&form=six`,
                name: `${detail.name} six cards, ${numbers}.pdf`,
              },
              {
                action: 'Colours for the laboratory',
                href: `/api/cases/${detail.id}/plan.pdf?notation=${notation}&form=shades`,
                name: `${detail.name} colours, ${numbers}.pdf`,
              },
              ...(isDecided
                ? [
                    {
                      action: 'An estimate for the patient',
                      href: `/api/cases/${detail.id}/plan.pdf?notation=${notation}&form=estimate`,
                      name: `${detail.name} estimate, ${numbers}.pdf`,
                    },
                  ]
                : []),
              ...(isTreated
                ? [
                    {
                      action: 'The record of treatment',
                      href: `/api/cases/${detail.id}/plan.pdf?notation=${notation}&form=treatment`,
                      name: `${detail.name} treatment, ${numbers}.pdf`,
                    },
                  ]
                : []),
              ...(isCut
                ? [
                    {
                      action: 'The preparations as they were checked',
                      href: `/api/cases/${detail.id}/plan.pdf?notation=${notation}&form=preparations`,
                      name: `${detail.name} preparations, ${numbers}.pdf`,
                    },
                  ]
                : []),
            ]}
          />
          <Handover
            icon={<Box size={26} aria-hidden="true" />}
            title="The planned contour as STL"
            words={
              upperPlanned
                ? 'Binary STL, millimetres, in the scan’s own coordinates: closed crowns for the technician. What the patient approved is a kept version; look at the head of the page before sending.'
                : 'It needs a scan of the upper jaw and a planned upper tooth first.'
            }
            action="Save the contour"
            href={`/api/cases/${detail.id}/contour.stl?what=planned`}
            name={`${detail.name} planned.stl`}
            disabled={!upperPlanned}
            also={[
              {
                action: 'Save as 3MF',
                href: `/api/cases/${detail.id}/contour.3mf?what=planned&notation=${notation}`,
                name: `${detail.name} planned ${numbers}.3mf`,
              },
              ...(['obj', 'ply'] as const).map((form) => ({
                action: `Save as ${form.toUpperCase()}`,
                href: `/api/cases/${detail.id}/contour.${form}?what=planned`,
                name: `${detail.name} planned.${form}`,
              })),
              {
                action: 'Save the arch as scanned',
                href: `/api/cases/${detail.id}/contour.stl?what=existing`,
                name: `${detail.name} existing.stl`,
              },
            ]}
          />
          {upperPlanned && (
            <Handover
              icon={<Box size={26} aria-hidden="true" />}
              title="Models and guides for the printer"
              words="Binary STL, millimetres. The plan joined with the untouched arch into one solid (some seconds); an index of 5 mm that reads the face of the preparations, or the same as a book of three leaves, each a third of the height; a strip that reads the edges; a slice of 2 mm for each tooth; an index for the mock-up itself, scalloped along the gum; the target preparations as closed stumps. All of it is as good as the scan: try a guide on a model before it is used in the mouth."
              action="Save the mock-up model"
              href={`/api/cases/${detail.id}/contour.stl?what=mock-up`}
              name={`${detail.name} mock-up.stl`}
              disabled={false}
              also={(
                [
                  ['Save the facial index', 'index'],
                  ['Save the leaf guide', 'leaf-guide'],
                  ['Save the edge strip', 'edge-strip'],
                  ['Save the sagittal slices', 'slices'],
                  ['Save the mock-up index', 'mock-up-index'],
                  ['Save the target preparations', 'prepared'],
                ] as const
              ).map(([action, what]) => ({
                action,
                href: `/api/cases/${detail.id}/contour.stl?what=${what}`,
                name: `${detail.name} ${what}.stl`,
              }))}
            />
          )}
          {upperPlanned && <BeforePrinting />}
          {upperPlanned && <IndexNote />}
          {lowerPlanned && (
            <Handover
              icon={<Box size={26} aria-hidden="true" />}
              title="The lower contour as STL"
              words="The planned lower crowns, in the coordinates of the scan of the lower jaw, which lies in the closed bite with the upper one."
              action="Save the lower contour"
              href={`/api/cases/${detail.id}/contour.stl?what=planned&jaw=lower`}
              name={`${detail.name} lower planned.stl`}
              disabled={false}
              also={[
                {
                  action: 'Save the lower contour as 3MF',
                  href: `/api/cases/${detail.id}/contour.3mf?what=planned&jaw=lower&notation=${notation}`,
                  name: `${detail.name} lower planned ${numbers}.3mf`,
                },
                ...(['obj', 'ply'] as const).map((form) => ({
                  action: `Save the lower contour as ${form.toUpperCase()}`,
                  href: `/api/cases/${detail.id}/contour.${form}?what=planned&jaw=lower`,
                  name: `${detail.name} lower planned.${form}`,
                })),
                {
                  action: 'Save the lower arch as scanned',
                  href: `/api/cases/${detail.id}/contour.stl?what=existing&jaw=lower`,
                  name: `${detail.name} lower existing.stl`,
                },
                {
                  action: 'Save the lower mock-up model',
                  href: `/api/cases/${detail.id}/contour.stl?what=mock-up&jaw=lower`,
                  name: `${detail.name} lower mock-up.stl`,
                },
              ]}
            />
          )}
          <Handover
            icon={<FileDown size={26} aria-hidden="true" />}
            title="The whole case as a file"
            words="JSON, open format: every section with all its versions, comments, photographs and scans. Bring it back in on the page of all cases; it comes as a case of its own, nothing is overwritten."
            action="Save the case file"
            href={`/api/cases/${detail.id}/case.json`}
            name={`${detail.name}.radiant-arch.json`}
          />
          {mayKeep && <Duplicate />}
        </div>
      }
      panel={<Written mayKeep={mayKeep} />}
      foot={
        <>
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">Planning aid. The treating clinician decides and checks in the mouth.</span>
        </>
      }
    />
  );
}

/** Who wrote what when, and the files that there are. */
function Written({ mayKeep }: { mayKeep: boolean }) {
  const { detail } = useCase();
  const stages = useStages();
  const { sections } = detail;
  return (
    <>
      {detail.imported && (
        <p className="mb-4 rounded-lg bg-plum-soft px-3 py-2 text-note">
          Brought in as a file by {detail.imported.by}, {moment(detail.imported.at)}
          {detail.imported.writtenAt ? `; the file was written ${moment(detail.imported.writtenAt)}` : ''}. Names and
          approvals from before that are the file’s word.
        </p>
      )}
      <h2 className="title mb-3">Written so far</h2>
      <ul>
        {stages
          .flatMap((s) => (s.section ? [sections[s.section]] : []))
          .map((s) => (
            <li key={s.name} className="border-b border-hair py-2">
              <span className="flex justify-between">
                <b className="font-semibold">{s.name}</b>
                <span className="text-ink-2">{s.version === 0 ? 'not begun' : `no. ${s.version}`}</span>
              </span>
              {s.at && (
                <span className="block text-note text-ink-2">
                  {s.by}, {moment(s.at)}
                </span>
              )}
            </li>
          ))}
      </ul>
      <h2 className="title mb-2 mt-6">Files</h2>
      <p className="mb-1 text-note text-ink-2">
        Photographs are shown and handed on without where and by whom they were taken; the bytes that came are kept with
        all of it.
      </p>
      <ul>
        {detail.files.map((f) => (
          <li key={f.id} className="border-b border-hair py-2">
            <a className="how" href={`/api/cases/${detail.id}/files/${f.id}`} download={f.name}>
              {f.name}
            </a>
            <span className="block text-note text-ink-2">
              {fileWords(f)}, {(f.bytes / 1e6).toFixed(1)} MB, {f.origin}, {moment(f.at)}
              {f.kind === 'photo' && mayKeep && (
                <>
                  {' · '}
                  <a className="how" href={`/api/cases/${detail.id}/files/${f.id}/original`} download={f.name}>
                    as the camera wrote it
                  </a>
                </>
              )}
            </span>
          </li>
        ))}
        {detail.files.length === 0 && <li className="text-ink-2">none yet</li>}
      </ul>
    </>
  );
}
