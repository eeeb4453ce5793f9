import {
  PREP_CHECKS,
  type PrepFinding,
  type PrepToothVerdict,
  restorationOf,
  sourceWords,
  worstState,
} from '@radiant/core';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { number } from '../../ui/format.js';
import { Accepting } from './Accepting.js';
import { Answers } from './Answers.js';
import { findingKey, STATE_WEIGHT, STATE_WORDS } from './words.js';

/** What was found on the chosen tooth: first what is not right, then what is. */
export function Verdict({
  verdict,
  chosen,
  onChoose,
}: {
  verdict: Pick<PrepToothVerdict, 'tooth' | 'state' | 'findings'>;
  /** The finding that is looked at, by its key. */
  chosen: string | undefined;
  onChoose: (finding: PrepFinding) => void;
}) {
  const name = useToothLabel();
  const { tooth } = useCase();
  const { data: reduce } = useSection('reduce');
  const { data } = useSection('verify');
  const { design } = restorationOf(tooth, reduce);
  const taken = new Set(data.accepted.map(findingKey));
  const open = verdict.findings.filter((f) => f.state !== 'right' && !isUnread(f));
  const unread = verdict.findings.filter(isUnread);
  const waits = open.filter((f) => !taken.has(findingKey(f)));
  const right = verdict.findings.filter((f) => f.state === 'right');
  return (
    <section aria-label={`What was found on ${name(tooth)}`}>
      <h2 className="title">
        {name(tooth)} · {waits.length > 0 ? STATE_WORDS[worstState(waits)] : unread.length > 0 ? 'not read' : 'right'}
      </h2>
      <p className="mb-3 text-note text-ink-2">
        {design.name}
        {waits.length === 0 && open.length > 0 ? `; ${open.length} taken as they are` : ''}
      </p>
      <ul className="space-y-2.5">
        {open.map((f) => (
          <Item key={findingKey(f)} finding={f} chosen={chosen === findingKey(f)} onChoose={onChoose} />
        ))}
      </ul>
      {unread.length > 0 && (
        <p className="mt-2 text-note text-ink-2">Not read yet: {unread.map((f) => f.place).join(', ')}.</p>
      )}
      <Right findings={right} />
    </section>
  );
}

const figure = (v: number, { unit }: PrepFinding): string =>
  unit === 'share' ? `${number(100 * v, 0)} %` : `${number(v, unit === 'mm' ? 2 : 1)} ${unit}`;

/** A reading by hand that nobody has taken. */
const isUnread = (f: PrepFinding): boolean => f.state === 'unknown' && Number.isNaN(f.value);

function Item({
  finding: f,
  chosen,
  onChoose,
}: {
  finding: PrepFinding;
  chosen: boolean;
  onChoose: (finding: PrepFinding) => void;
}) {
  const sentence = useSentence();
  return (
    <li className="finding text-note" data-weight={STATE_WEIGHT[f.state]} aria-current={chosen || undefined}>
      <span className="text-tiny text-ink-2">
        {PREP_CHECKS[f.check]} · {STATE_WORDS[f.state]}
      </span>
      <p className={chosen ? 'font-semibold' : ''}>{sentence(f.says)}</p>
      {f.todo && <p className="mt-0.5">→ {sentence(f.todo)}</p>}
      <div className="mt-1 flex flex-wrap items-baseline gap-x-3.5 text-tiny text-ink-2">
        {f.at && (
          <button type="button" className="how" onClick={() => onChoose(f)}>
            show it
          </button>
        )}
        <details className="open:basis-full">
          <summary className="how cursor-pointer list-none">how?</summary>
          measured {figure(f.value, f)}
          {f.pm > 0 && ` ± ${figure(f.pm, f)}`}, limit {figure(f.limit, f)}; {sourceWords(f.source)}
        </details>
        <Accepting finding={f} />
        <Answers finding={f} />
      </div>
    </li>
  );
}

function Right({ findings }: { findings: readonly PrepFinding[] }) {
  const sentence = useSentence();
  if (findings.length === 0) return null;
  return (
    <details className="mt-4 text-note">
      <summary className="subtitle cursor-pointer">{findings.length} checks are right</summary>
      <ul className="mt-1.5 space-y-1 text-ink-2">
        {findings.map((f) => (
          <li key={findingKey(f)}>{sentence(f.says)}</li>
        ))}
      </ul>
    </details>
  );
}
