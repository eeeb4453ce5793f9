import { CAUTIONS, mayWrite, type SectionName, standingOf, standingWords, type Who } from '@radiant/contract';
import { ArrowLeft } from 'lucide-react';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useParams } from 'react-router';
import { api, sentenceOf } from '../data/api.js';
import { CaseProvider, useCase, useSection } from '../data/case-context.js';
import { useJobs } from '../data/jobs.js';
import { arrivedOf, isMoving } from '../data/upload-queue.js';
import { useUploads } from '../data/uploads.js';
import { EngineProvider } from '../engine/engine-context.js';
import { Boundary } from '../ui/Boundary.js';
import { day } from '../ui/format.js';
import { PageTitle } from '../ui/PageTitle.js';
import { PALETTE } from '../ui/palette.js';
import { Trouble, Waiting } from '../ui/Waiting.js';
import { ArchStrip } from './ArchStrip.js';
import { Arrivals } from './Arrivals.js';
import { CaseName } from './CaseName.js';
import { LookedAt } from './History.js';
import { Keys } from './Keys.js';
import { Palette } from './Palette.js';
import { SaveState } from './SaveState.js';
import { type StageDefinition, useStages } from './stage.js';
import { useAfterTyping } from './use-after-typing.js';

/** A case: name and arch strip above, the journey at the left, the stage in the middle. */
export function CasePage({ who }: { who: Who }) {
  const { id } = useParams();
  if (!id) return null;
  return (
    <CaseProvider
      key={`${id} ${who.id}`}
      id={id}
      who={who}
      fallback={(error) => (error ? <NoCase error={error} /> : <Waiting what="the case" />)}
    >
      <EngineProvider>
        <Frame />
      </EngineProvider>
    </CaseProvider>
  );
}

/** Two people rarely change the same: what asks about it is fetched when they do. */
const ConflictDialog = lazy(async () => ({ default: (await import('./ConflictDialog.js')).ConflictDialog }));

function InConflict({ section }: { section: SectionName }) {
  const { conflict } = useSection(section);
  // It listens from the beginning: the keys that count are those before the conflict came.
  const asked = useAfterTyping(!!conflict);
  return conflict && asked ? (
    <Suspense fallback={null}>
      <ConflictDialog section={section} />
    </Suspense>
  ) : null;
}

/** Why there is no case to show, and the way back. */
function NoCase({ error }: { error: unknown }) {
  return (
    <div className="flex h-full flex-col items-center justify-center">
      <div>
        <Trouble sentence={sentenceOf(error)} retry={() => location.reload()} />
      </div>
      <Link to="/" className="how">
        to all cases
      </Link>
    </div>
  );
}

function Frame() {
  const { detail, who } = useCase();
  const { pathname } = useLocation();
  const stages = useStages();
  const stage = (stages.find((s) => s.name === pathname.split('/').at(-1)) ?? stages[0]) as StageDefinition;
  const meet = useSection('meet').data;
  const { imported } = detail;
  const facts = [
    meet.ageYears ? `${meet.ageYears} y` : '',
    meet.wish,
    meet.finishBy ? `by ${day(meet.finishBy)}` : '',
    imported ? `brought in by ${imported.by}, ${day(imported.at)}` : '',
  ]
    .filter(Boolean)
    .join(' · ');
  return (
    <div className="grid h-full grid-cols-[148px_minmax(0,1fr)] grid-rows-[100px_minmax(0,1fr)] max-lg:flex max-lg:h-auto max-lg:min-h-full max-lg:flex-col">
      <PageTitle of={[detail.name, stage.name]} />
      <header className="col-span-2 grid grid-cols-[minmax(0,1fr)_minmax(340px,520px)_minmax(0,1fr)] border-b border-hair bg-leaf max-lg:flex max-lg:flex-wrap">
        <div className="min-w-0 px-5 py-4 max-lg:flex-1 max-lg:pb-1">
          <CaseName />
          <p className={`text-note text-ink-2 ${meet.cautions.length > 0 ? 'truncate' : 'line-clamp-2'}`} title={facts}>
            {facts}
          </p>
          <PutAwayNote mayBringBack={who.role === 'dentist'} />
          {meet.cautions.length > 0 && (
            <p className="mt-0.5 truncate text-note font-semibold text-removed-ink" title={meet.cautionNote}>
              beware: {meet.cautions.map((c) => CAUTIONS[c]).join(', ')}
            </p>
          )}
        </div>
        <ArchStrip stage={stage} />
        <div className="min-w-0 px-5 py-4 text-right text-note text-ink-2 max-lg:ml-auto max-lg:pb-0 max-sm:w-full max-sm:py-0 max-sm:text-left">
          <StageFact stage={stage} />
          {stage.section && <SaveState section={stage.section} />}
        </div>
      </header>
      <Journey stage={stage} />
      <NoteOpened stage={stage.name} />
      <Boundary key={pathname} what={`The stage “${stage.name}”`}>
        <Suspense fallback={<Waiting what="the stage" />}>
          <Outlet />
        </Suspense>
      </Boundary>
      {stage.section && (
        <div className="fixed top-[100px] right-[384px] left-[148px] z-20 max-lg:inset-x-0 max-lg:top-0 max-lg:z-40">
          <LookedAt key={stage.section} section={stage.section} mayGoBack={mayWrite(who.role, stage.section)} />
        </div>
      )}
      {stage.section && <InConflict section={stage.section} />}
      <Keys stage={stage} />
    </div>
  );
}

/** Tells the server at which stage the case is open; that nobody hears of it when it can't be told is no loss. */
function NoteOpened({ stage }: { stage: string }) {
  const { detail } = useCase();
  const { id } = detail;
  useEffect(() => {
    void api.post(`/cases/${id}/opened`, { stage }).catch(() => undefined);
  }, [id, stage]);
  return null;
}

/** Says that the case was put away, and brings it back. */
function PutAwayNote({ mayBringBack }: { mayBringBack: boolean }) {
  const { detail, refresh } = useCase();
  const [refusal, setRefusal] = useState<string>();
  if (!detail.putAway) return null;
  const back = () =>
    api.post(`/cases/${detail.id}/bring-back`, {}).then(refresh, (e: unknown) => setRefusal(sentenceOf(e)));
  return (
    <p role="status" className="mt-0.5 text-note font-semibold text-removed-ink">
      put away {day(detail.putAway.at)} by {detail.putAway.by}: nothing can be changed.{' '}
      {mayBringBack && (
        <button type="button" className="how" onClick={() => void back()}>
          bring it back
        </button>
      )}
      {refusal && <span role="alert"> {refusal}</span>}
    </p>
  );
}

function StageFact({ stage }: { stage: StageDefinition }) {
  const shape = useSection('shape');
  const { detail } = useCase();
  if (stage.onContour) {
    const standing = standingOf(shape.data.teeth, detail.contours);
    return (
      <p>
        <b className="font-semibold text-ink">Contour no. {shape.version}</b>
        {shape.at ? `, ${day(shape.at)}` : ''}
        <span className={`block ${standing.kind === 'approved' ? '' : 'font-semibold text-removed-ink'}`}>
          {standingWords(standing)}
        </span>
      </p>
    );
  }
  return <p className="text-ink">{stage.question}</p>;
}

function Journey({ stage }: { stage: StageDefinition }) {
  const { detail, notation, setNotation, who } = useCase();
  const stages = useStages();
  return (
    <nav
      aria-label="Journey"
      className="flex flex-col border-r border-hair py-3.5 max-lg:flex-row max-lg:flex-wrap max-lg:items-center max-lg:border-r-0 max-lg:border-b max-lg:py-1"
    >
      {stages.map((s) => (
        <NavLink
          key={s.name}
          to={s.name}
          className={({ isActive }) =>
            `relative flex h-10 items-center gap-2.5 pl-[18px] pr-4 text-body max-lg:gap-1.5 max-lg:px-3 ${isActive ? 'font-[650] text-ink' : 'text-ink-2 hover:text-ink'}`
          }
        >
          {({ isActive }) => (
            <>
              {isActive && (
                <span className="absolute bottom-2 left-0 top-2 w-1 rounded-r bg-plum max-lg:inset-x-3 max-lg:top-auto max-lg:bottom-0 max-lg:h-[3px] max-lg:w-auto max-lg:rounded-t" />
              )}
              <StageGlyph on={isActive} section={s.section} />
              {s.name}
            </>
          )}
        </NavLink>
      ))}
      <div className="mt-auto flex flex-col gap-2.5 px-[18px] text-note text-ink-2 max-lg:mt-0 max-lg:ml-auto max-lg:flex-row max-lg:flex-wrap max-lg:items-center max-lg:gap-x-4 max-lg:gap-y-1 max-lg:px-3">
        <Palette stage={stage} />
        <label className="flex flex-col gap-1 whitespace-nowrap max-lg:flex-row max-lg:items-center">
          tooth numbers
          <select
            className="field h-[28px] px-1 text-note"
            value={notation}
            onChange={(e) => setNotation(e.target.value === 'universal' ? 'universal' : 'fdi')}
          >
            <option value="fdi">FDI</option>
            <option value="universal">Universal</option>
          </select>
        </label>
        <OnTheirWay />
        <BeingMade />
        <Arrivals who={who} compact />
        <span title={`${who.name}, ${who.role}`} className="truncate">
          {who.role}
        </span>
        <Link
          to="/"
          className="flex items-center gap-1.5 hover:text-ink"
          aria-label={`All cases, leave ${detail.name}`}
        >
          <ArrowLeft size={15} aria-hidden="true" /> all cases
        </Link>
      </div>
    </nav>
  );
}

/** Photographs that are being sent while another stage is looked at. */
function OnTheirWay() {
  const { detail } = useCase();
  const { items } = useUploads(detail.id);
  if (!isMoving(items)) return null;
  return (
    <Link to="meet" className="font-semibold text-plum">
      <span aria-live="polite">
        {arrivedOf(items)} of {items.length} sent
      </span>
    </Link>
  );
}

/** Files that are being made while another stage is looked at. */
function BeingMade() {
  const { detail } = useCase();
  const { own } = useJobs(detail.id);
  const making = own.filter((j) => j.state === 'making');
  if (making.length === 0) return null;
  const share = making.reduce((s, j) => s + (j.share ?? 0), 0) / making.length;
  return (
    <Link to="keep" className="font-semibold text-plum">
      <span aria-live="polite">
        {making.length === 1 ? 'one file' : `${making.length} files`} being made, {Math.round(100 * share)} %
      </span>
    </Link>
  );
}

function StageGlyph({ on, section }: { on: boolean; section: SectionName | undefined }) {
  const { detail } = useCase();
  const begun = section ? detail.sections[section].version > 0 : false;
  return (
    <svg width="20" height="14" viewBox="0 0 20 14" aria-hidden="true">
      <path
        d="M3 10a7 7 0 0 1 14 0"
        fill="none"
        stroke={on || begun ? PALETTE.plum : '#c9c3b8'}
        strokeWidth={on || begun ? 2.4 : 1.6}
      />
      {on && <circle cx="10" cy="10" r="2.6" fill={PALETTE.plum} />}
    </svg>
  );
}
