import {
  burName,
  enamelWords,
  type Groove,
  isoDiameter,
  kindOf,
  restorationOf,
  strategyOf,
  type ToothReduction,
  type Zone,
  type ZoneTarget,
} from '@radiant/core';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { Comments } from '../../shell/Comments.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { ReadOnlyNote, Refused } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { WorkingView } from '../../ui/How.js';
import { DesignFields } from './DesignFields.js';
import { StrategyField } from './StrategyField.js';
import { ThicknessFields } from './ThicknessFields.js';

/** Design and strategy, the tooth's zones, the working of the chosen one, and what to cut it with. */
export function ZonePanel({
  own,
  zone,
  setZone,
}: {
  own: ToothReduction | undefined;
  zone: Zone;
  setZone: (z: Zone) => void;
}) {
  const { tooth } = useCase();
  const reduce = useSection('reduce');
  const { data } = reduce;
  const name = useToothLabel();
  const { design } = restorationOf(tooth, data);
  const chosen = own?.zones.find((z) => z.zone === zone);
  return (
    <>
      <ReadOnlyNote section="reduce" />
      <Refused sentence={reduce.refusal?.detail} />
      <DesignFields />
      <ThicknessFields />
      <StrategyField />
      <h2 className="title">
        {name(tooth)} · {design.name}
      </h2>
      <p className="mb-1 text-note text-ink-2">
        {design.reason} Palatal: {design.palatal}.
      </p>
      {own && (
        <>
          <FigureTable
            className="[&_td:first-child]:pl-0 [&_td]:whitespace-nowrap [&_td]:pl-1 [&_th:first-child]:pl-0 [&_th]:pl-1"
            aria-label="Reduction"
          >
            <thead>
              <tr>
                <th scope="col">zone</th>
                <th scope="col">needs</th>
                <th scope="col">gap</th>
                <th scope="col">remove</th>
                <th
                  scope="col"
                  title="how far the tooth stands in front of the plan, on all but 5 % of the zone’s face"
                >
                  proud
                </th>
                <th scope="col" title="95 % of the zone’s face stays under this, line angles among it">
                  up to
                </th>
                <th scope="col">enamel left</th>
              </tr>
            </thead>
            <tbody>
              {own.zones.map((z) => (
                <ZoneRow key={z.zone} target={z} on={z.zone === zone} pick={() => setZone(z.zone)} />
              ))}
            </tbody>
          </FigureTable>
          {chosen?.removal && (
            <div className="mt-3">
              <WorkingView
                figure={chosen.removal.remove}
                what={`${zone}, to remove`}
                {...(chosen.enamel && { source: chosen.enamel.source })}
              />
              {chosen.gapRange && (
                <p className="mt-1 text-tiny text-ink-2">
                  gap over the middle {number(chosen.gapRange[0], 2)} to {number(chosen.gapRange[1], 2)} mm,{' '}
                  {chosen.places} places; 95 % of its face, line angles among it, stays under{' '}
                  {number(chosen.deepest?.value ?? 0, 2)} mm; enamel is told where least is left, but for the worst 5 %
                  {kindOf(tooth) === 'canine' && '; enamel norm of incisors, none known for canines'}
                </p>
              )}
            </div>
          )}
          <Sentences own={own} />
          <h2 className="subtitle mt-4">Cut, {strategyOf(data.from).name}</h2>
          <ul>
            {own.zones.map((z) => (
              <GrooveLine key={z.zone} zone={z.zone} groove={z.groove} />
            ))}
          </ul>
          <p className="mt-2 text-tiny text-ink-2">
            Mark cut grooves with a pencil so that nothing is cut twice. Protect neighbours with a metal matrix.
          </p>
        </>
      )}
      <Comments stage="reduce" />
    </>
  );
}

/** How far a zone stands in front of the plan, mm: its face, or the edge. */
const proudOf = (z: ZoneTarget): number => z.proud?.value ?? z.removal?.alignFirst ?? 0;

function ZoneRow({ target: z, on, pick }: { target: ZoneTarget; on: boolean; pick: () => void }) {
  const r = z.removal;
  return (
    <tr className={on ? 'bg-plum-soft' : ''}>
      <td>
        <button type="button" className={on ? 'font-[650] text-plum' : ''} aria-pressed={on} onClick={pick}>
          {z.zone}
        </button>
      </td>
      <td>{r ? r.needed.toFixed(1) : '–'}</td>
      <td>{r ? number(r.gap, 2) : '–'}</td>
      <td className="font-[650]">
        {r ? (r.remove.value === 0 ? 'none' : r.remove.value.toFixed(2)) : z.zone === 'edge' ? 'flat' : '–'}
      </td>
      <td className={proudOf(z) > 0 ? 'text-removed-ink' : 'text-ink-2'}>
        {proudOf(z) > 0 ? proudOf(z).toFixed(2) : z.removal ? 'no' : '–'}
      </td>
      <td>{z.deepest ? (z.deepest.value === 0 ? 'none' : z.deepest.value.toFixed(2)) : '–'}</td>
      <td
        className={
          z.enamel?.state === 'gone'
            ? 'font-[650] text-stop'
            : z.enamel?.state === 'doubtful'
              ? 'font-[650] text-removed-ink'
              : ''
        }
      >
        {z.enamel ? enamelWords(z.enamel) : '–'}
      </td>
    </tr>
  );
}

function Sentences({ own }: { own: ToothReduction }) {
  const sentence = useSentence();
  const found = own.zones.flatMap((z) => (z.sentence ? [z.sentence] : []));
  if (found.length === 0) return null;
  return (
    <div className="mt-3">
      {found.map((s) => (
        <p key={s.text} className="finding mb-2 text-note" data-weight={s.weight}>
          {sentence(s.text)}
        </p>
      ))}
    </div>
  );
}

function GrooveLine({ zone, groove: g }: { zone: Zone; groove: Groove }) {
  return (
    <li className="flex justify-between gap-3 border-b border-hair py-1.5 text-note">
      <span className="min-w-0">
        <b className="font-[650]">{zone}</b>
        {g.kind === 'cut' ? (
          <span className="block text-ink-2">
            {g.first && <span className="block text-removed-ink">{g.first}</span>}
            {burName(g.engagement.bur)} (ISO {isoDiameter(g.engagement.bur)}); {g.engagement.how}; {g.grooves}
          </span>
        ) : (
          <span className="block text-ink-2">{g.why}</span>
        )}
      </span>
      <b className="shrink-0 font-[650]" data-testid={`groove-${zone}`}>
        {g.kind === 'cut' ? g.engagement.depthMm.toFixed(1) : g.nearest ? g.nearest.depthMm.toFixed(1) : '–'}
      </b>
    </li>
  );
}
