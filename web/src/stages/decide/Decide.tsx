import { contourPlan, type DecideSection, mouthOf } from '@radiant/contract';
import { type Fdi, type OptionId, optionOf, RULES, type RuleId, ranked } from '@radiant/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { clientOf, useContour } from '../../engine/use-contour.js';
import { useLower } from '../../engine/use-lower.js';
import { Comments } from '../../shell/Comments.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { Empty, KeyHint, Stage } from '../../ui/StageLayout.js';
import { Trouble, Waiting } from '../../ui/Waiting.js';
import { OptionList } from './OptionList.js';
import { useColour, useFacts } from './use-facts.js';
import { WholeCase } from './WholeCase.js';

/** Decide: what may be done to each tooth, what speaks for it and against it; the dentist chooses. */
export default function Decide() {
  const contour = useContour();
  const { tooth } = useCase();
  const { data, set, refusal, store } = useSection('decide');
  const reduce = useSection('reduce');
  const shape = useSection('shape').data;
  const { cautions, ageYears } = useSection('meet').data;
  const mayWrite = useMayWrite('decide');
  const name = useToothLabel();
  const sentence = useSentence();
  const plan = useMemo(() => contourPlan(shape.teeth), [shape.teeth]);
  const lower = useLower(contour, true);
  const ready = contour.state === 'ready' && lower.state !== 'loading' && plan[tooth];
  const client = ready ? clientOf(contour) : undefined;
  const colour = useColour(tooth);
  const input = useMemo(
    () => [tooth, reduce.data, colour, mouthOf({ cautions, ageYears })] as const,
    [tooth, reduce.data, colour, cautions, ageYears],
  );
  const asked = useAsked(client, plan, 'optionsTold', input);
  const told = shownOf(asked);
  const facts = useFacts(tooth, colour, told);
  const off = data.rulesOff ?? NONE;
  const order = useMemo(
    () => (told ? ranked(facts, new Map(told.figures), { off, limits: {} }) : []),
    [facts, told, off],
  );
  const own = data.choices.find((c) => c.tooth === tooth);
  const chosen = order.find((r) => r.option.id === own?.option);
  const choose = (option: OptionId) => {
    const { design } = optionOf(option);
    set({ ...data, choices: [...data.choices.filter((c) => c.tooth !== tooth), { tooth, option }] });
    const others = (reduce.data.own ?? []).filter((o) => o.tooth !== tooth);
    // What is decided is what reduce plans.
    reduce.set({ ...reduce.data, own: design ? [...others, { tooth, design }] : others });
  };
  const teeth = shape.teeth.map((t) => t.tooth as Fdi);

  const body =
    contour.state === 'no-scan' || teeth.length === 0 ? (
      <Empty title="What an option costs is told by the contour">
        <p>
          {contour.state === 'no-scan' ? 'There is no scan yet, and no contour. ' : 'No tooth is planned yet. '}
          <Link className="how" to="../shape">
            Go to shape
          </Link>
        </p>
      </Empty>
    ) : contour.state === 'failed' ? (
      <Trouble sentence={sentence(contour.sentence)} retry={contour.retry} />
    ) : contour.state === 'loading' ? (
      <Waiting what="the scan and measuring its teeth" />
    ) : !plan[tooth] ? (
      <Empty title={`Nothing is planned for ${name(tooth)}`}>
        <p>Choose a planned tooth on the strip.</p>
      </Empty>
    ) : asked.state === 'failed' ? (
      <Trouble sentence={sentence(asked.sentence)} retry={asked.retry} />
    ) : !told ? (
      <Waiting what="what each option would take" />
    ) : (
      <div className="h-full overflow-y-auto px-6 py-4">
        <h2 className="title mb-2">{name(tooth)}: what speaks for what</h2>
        <OptionList
          ranked={order}
          chosen={own?.option}
          choose={mayWrite ? choose : undefined}
          switchOff={mayWrite ? (rule) => set({ ...data, rulesOff: [...off, rule] }) : undefined}
        />
      </div>
    );
  return (
    <Stage
      bench={body}
      panel={
        <>
          <ReadOnlyNote section="decide" />
          <Refused sentence={refusal?.detail} />
          <h2 className="title mb-2">{name(tooth)}</h2>
          <p className="mb-2 text-note">
            {own ? `${optionOf(own.option).name}. Upkeep: ${optionOf(own.option).upkeep}.` : 'Not decided.'}
          </p>
          {chosen?.asksReason && own && (
            <label className="mb-3 block text-note">
              Why all the same? A rule asks for a written reason.
              <textarea
                className="field mt-1 h-20 w-full py-1.5"
                maxLength={500}
                disabled={!mayWrite}
                value={own.reason ?? ''}
                onChange={(e) =>
                  set(
                    {
                      ...data,
                      choices: data.choices.map((c) => (c.tooth === tooth ? { ...c, reason: e.target.value } : c)),
                    },
                    `reason ${tooth}`,
                  )
                }
                onBlur={() => store.endGroup()}
              />
              {!own.reason?.trim() && <span className="text-stop">No reason is written yet.</span>}
            </label>
          )}
          <Found data={data} set={set} tooth={tooth} disabled={!mayWrite} name={name(tooth)} />
          {!colour && (
            <p className="finding mt-3 text-note" data-weight="watch">
              No colour is known of {name(tooth)}: rules on its colour say little.{' '}
              <Link className="how" to="../match">
                Read it in match
              </Link>
            </p>
          )}
          <WholeCase teeth={teeth} data={data} />
          {off.length > 0 && (
            <>
              <h2 className="subtitle mt-5 mb-1">Rules switched off here</h2>
              <ul className="text-note">
                {RULES.filter((r) => off.includes(r.id)).map((r) => (
                  <li key={r.id} className="flex justify-between gap-2">
                    {r.title}
                    {mayWrite && (
                      <button
                        type="button"
                        className="how"
                        onClick={() => set({ ...data, rulesOff: off.filter((id) => id !== r.id) })}
                      >
                        let it speak
                      </button>
                    )}
                  </li>
                ))}
              </ul>
            </>
          )}
          <p className="mt-3 text-tiny text-ink-2">
            The order follows from the sentences and from nothing else; of equal options that comes first which takes
            less of the tooth. The dentist decides, with the patient, by local rules.
          </p>
          <Comments stage="decide" />
        </>
      }
      foot={
        <>
          <KeyHint keys={['[', ']']} does="tooth" />
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">Planning aid for {name(tooth)}. The treating clinician decides.</span>
        </>
      }
    />
  );
}

const NONE: readonly RuleId[] = [];

/** What was found at the chair that bears on the choice. */
function Found({
  data,
  set,
  tooth,
  disabled,
  name,
}: {
  data: DecideSection;
  set: (next: DecideSection) => void;
  tooth: Fdi;
  disabled: boolean;
  name: string;
}) {
  const cameOff = data.cameOff ?? [];
  return (
    <fieldset className="flex flex-col gap-1.5 text-note" disabled={disabled}>
      <legend className="mb-1">Found</legend>
      <label className="flex items-center justify-between gap-2">
        kept dry
        <select
          aria-label="Kept dry"
          className="field h-8 w-40 px-2"
          value={data.dry === true ? 'yes' : data.dry === false ? 'no' : ''}
          onChange={(e) => set({ ...data, dry: e.target.value === '' ? null : e.target.value === 'yes' })}
        >
          <option value="">not tried yet</option>
          <option value="yes">can be</option>
          <option value="no">can’t be</option>
        </select>
      </label>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={data.bleachLater ?? false}
          onChange={(e) => set({ ...data, bleachLater: e.target.checked })}
        />
        may bleach later
      </label>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={cameOff.includes(tooth)}
          onChange={(e) =>
            set({ ...data, cameOff: e.target.checked ? [...cameOff, tooth] : cameOff.filter((t) => t !== tooth) })
          }
        />
        the splinted provisional of {name} came off
      </label>
    </fieldset>
  );
}
