import {
  burId,
  burName,
  bursOf,
  CUT_COLUMNS,
  cutRows,
  DEPTH_TOLERANCE_MM,
  type Engagement,
  engagements,
  FIRST_TRAY,
  finishes,
  type How,
  isoDiameter,
  NOTATION_NAMES,
  TOLERANCE_LIMITS,
  type ToothCutList,
  type ToothReduction,
  type Zone,
} from '@radiant/core';
import { BurProfile } from '../../bench/BurProfile.js';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { Comments } from '../../shell/Comments.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { saveCsv } from '../../ui/csv.js';
import { NumberInput } from '../../ui/NumberInput.js';
import { StrategyField } from './StrategyField.js';
import { TrayField } from './TrayField.js';

/** What the teeth are cut with: strategy, tray, the burs that the case asks for, and a choice by hand. */
export function CutPanel({ lists, own }: { lists: readonly ToothCutList[]; own: ToothReduction | undefined }) {
  const { tooth } = useCase();
  const reduce = useSection('reduce');
  const { data, set, store } = reduce;
  const mayWrite = useMayWrite('reduce');
  const name = useToothLabel();
  const needed = bursOf(lists);
  return (
    <>
      <ReadOnlyNote section="reduce" />
      <Refused sentence={reduce.refusal?.detail} />
      <StrategyField />
      <TrayField />
      <div className="mb-4 flex items-center gap-2 text-note">
        A bur may be off by
        <NumberInput
          label="Tolerance of depths, mm"
          className="field h-8 w-[64px] px-2 text-right"
          value={data.toleranceMm ?? DEPTH_TOLERANCE_MM}
          min={TOLERANCE_LIMITS.min}
          max={TOLERANCE_LIMITS.max}
          step={0.01}
          digits={2}
          unit="mm"
          disabled={!mayWrite}
          onChange={(mm) => mm !== null && set({ ...data, toleranceMm: mm }, 'tolerance')}
          onDone={() => store.endGroup()}
        />
        mm
      </div>
      <h2 className="title">Burs of this case</h2>
      <p className="mb-2 text-note text-ink-2">
        In the order in which they are taken; as few as give every depth, for all teeth together.
      </p>
      <ul className="mb-5 flex flex-wrap items-end gap-x-3 gap-y-2" aria-label="Burs of this case">
        {needed.map((b) => (
          <li key={burId(b)} className="flex flex-col items-center" title={burName(b)}>
            <BurProfile bur={b} pxPerMm={7} />
            <span className="mt-1 text-tiny">{isoDiameter(b)}</span>
          </li>
        ))}
      </ul>
      <SaveList lists={lists} />
      {own && (
        <>
          <h2 className="title">{name(tooth)}: grooves</h2>
          <p className="mb-2 text-note text-ink-2">
            Another bur than the program’s may be taken; what that does is said.
          </p>
          {own.zones.map((z) => (
            <GrooveField key={z.zone} zone={z.zone} own={own} />
          ))}
        </>
      )}
      <Comments stage="reduce" />
    </>
  );
}

/** All steps of all teeth as a table. */
function SaveList({ lists }: { lists: readonly ToothCutList[] }) {
  const { notation, detail } = useCase();
  const name = useToothLabel();
  if (lists.length === 0) return null;
  const { long, short } = NOTATION_NAMES[notation];
  const save = () =>
    saveCsv(
      [['tooth numbers', long], [...CUT_COLUMNS], ...cutRows(lists, name)],
      `${detail.name}, cut list, ${short} numbers.csv`,
    );
  return (
    <button type="button" className="how mb-5 text-note" onClick={save}>
      save the cut list as CSV
    </button>
  );
}

const keyOf = (e: Engagement) => `${burId(e.bur)}|${e.how}`;

/** The groove of a zone: the program's bur, or one chosen by hand. */
function GrooveField({ zone, own }: { zone: Zone; own: ToothReduction }) {
  const { data, set } = useSection('reduce');
  const mayWrite = useMayWrite('reduce');
  const g = own.zones.find((z) => z.zone === zone)?.groove;
  if (!g || (g.kind === 'none' && g.depthMm === 0))
    return (
      <p className="mb-2 text-note">
        <b className="font-[650]">{zone}</b> <span className="text-ink-2">{g?.kind === 'none' ? g.why : ''}</span>
      </p>
    );
  const chosen = data.grooves?.find((h) => h.tooth === own.tooth && h.zone === zone);
  const known = (data.tray ?? FIRST_TRAY).burs
    .filter((b) => !finishes(b))
    .flatMap(engagements)
    .filter((e) => zone === 'edge' || e.how !== 'sunk to its working length')
    .sort((a, b) => a.depthMm - b.depthMm);
  const others = (data.grooves ?? []).filter((h) => h.tooth !== own.tooth || h.zone !== zone);
  const choose = (key: string) => {
    const [bur = '', how = ''] = key.split('|');
    set({ ...data, grooves: key ? [...others, { tooth: own.tooth, zone, bur, how: how as How }] : others });
  };
  const proposal = g.kind === 'cut' ? g.engagement : g.nearest;
  return (
    <div className="mb-2.5 text-note">
      <div className="flex items-baseline justify-between">
        <b className="font-[650]">{zone}</b>
        <span className="text-ink-2">wanted {g.depthMm.toFixed(2)} mm</span>
      </div>
      <select
        aria-label={`Bur for ${zone}`}
        className="field mt-0.5 h-8 w-full px-1.5 text-note"
        value={chosen ? `${chosen.bur}|${chosen.how}` : ''}
        disabled={!mayWrite}
        onChange={(e) => choose(e.target.value)}
      >
        <option value="">
          {chosen || !proposal
            ? 'the program’s choice'
            : `${proposal.depthMm.toFixed(2)} · ${burName(proposal.bur)}, ${proposal.how}`}
        </option>
        {known.map((e) => (
          <option key={keyOf(e)} value={keyOf(e)}>
            {e.depthMm.toFixed(2)} · {burName(e.bur)}, {e.how}
          </option>
        ))}
      </select>
      {g.kind === 'none' && <p className="mt-1 text-ink-2">{g.why}</p>}
      {g.kind === 'cut' && g.byHand && (
        <p className="finding mt-1" data-weight={g.byHand.includes('deeper') ? 'stop' : 'watch'}>
          {g.byHand}
        </p>
      )}
    </div>
  );
}
