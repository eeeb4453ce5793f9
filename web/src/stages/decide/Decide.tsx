import { contourPlan, type PlanName, rulesIn, type ToothChoice } from '@radiant/contract';
import { type DesignId, type Fdi, type OptionId, optionOf, type RuleId, ranked } from '@radiant/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { useMouth } from '../../data/use-mouth.js';
import { usePracticeSettings } from '../../data/use-practice-settings.js';
import { clientOf, useContour } from '../../engine/use-contour.js';
import { useLower } from '../../engine/use-lower.js';
import { Comments } from '../../shell/Comments.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { Empty, KeyHint, Stage } from '../../ui/StageLayout.js';
import { Trouble, Waiting } from '../../ui/Waiting.js';
import { CeramicField } from './CeramicField.js';
import { Found } from './Found.js';
import { factsOf, useColour } from './facts.js';
import { Held } from './Held.js';
import { OptionList } from './OptionList.js';
import { type DecideBench, PlanChips } from './PlanChips.js';
import { PlansSideBySide } from './PlansSideBySide.js';
import { RulesOff } from './RulesOff.js';
import { useOptions } from './use-options.js';
import { WholeCase } from './WholeCase.js';

/** Decide: what may be done to each tooth, what speaks for it and against it; the dentist chooses. */
export default function Decide() {
  const contour = useContour();
  const { tooth } = useCase();
  const { data, set, refusal, store } = useSection('decide');
  const reduce = useSection('reduce');
  const shape = useSection('shape').data;
  const meet = useSection('meet').data;
  const matching = useSection('match');
  const match = matching.data;
  const house = usePracticeSettings().shown;
  const [bench, setBench] = useState<DecideBench>('tooth');
  const [attempt, setAttempt] = useState(0);
  const mayWrite = useMayWrite('decide');
  const name = useToothLabel();
  const sentence = useSentence();
  const plan = useMemo(() => contourPlan(shape.teeth), [shape.teeth]);
  const lower = useLower(contour, true);
  const ready = contour.state === 'ready' && lower.state !== 'loading' && plan[tooth];
  const client = ready ? clientOf(contour) : undefined;
  const colour = useColour(tooth);
  const teeth = useMemo(() => shape.teeth.map((t) => t.tooth as Fdi), [shape.teeth]);
  const mouth = useMouth();
  // The tooth that is looked at is asked first, then the others for the whole case.
  const line = useMemo(() => [tooth, ...teeth.filter((t) => t !== tooth)].filter((t) => plan[t]), [tooth, teeth, plan]);
  const options = useOptions(client, plan, line, reduce.data, match, mouth, attempt);
  const [told, trouble] = [options.told.get(tooth), options.troubles.get(tooth)];
  const facts = useMemo(() => factsOf(tooth, meet, data, colour, told), [tooth, meet, data, colour, told]);
  const off = data.rulesOff ?? NONE;
  const rules = useMemo(() => rulesIn(house, off), [house, off]);
  const order = useMemo(() => (told ? ranked(facts, new Map(told.figures), rules) : []), [facts, told, rules]);
  const own = data.choices.find((c) => c.tooth === tooth);
  const chosen = order.find((r) => r.option.id === own?.option);
  const choose = (option: OptionId) => {
    const ceramic = order.find((r) => r.option.id === option)?.figures.ceramic ?? optionOf(option).ceramics?.[0];
    // The reason for one option is none for another.
    const next: ToothChoice = { tooth, option, ...(ceramic && { ceramic }) };
    set({ ...data, choices: [...data.choices.filter((c) => c.tooth !== tooth), next] });
    planned([next], [tooth]);
  };
  const chooseCeramic = (ceramic: string) => {
    if (!own) return;
    const next: ToothChoice = { ...own, ceramic };
    set({ ...data, choices: data.choices.map((c) => (c.tooth === tooth ? next : c)) });
    planned([next], [tooth]);
  };
  /**
   * What is decided is what reduce plans and what match looks through.
   * @param of teeth whose own design and ceramic go where none is chosen
   */
  const planned = (choices: readonly ToothChoice[], of: readonly number[]) => {
    const named = new Set(of);
    const designs = choices.flatMap((c): { tooth: number; design: DesignId }[] => {
      const { design } = optionOf(c.option);
      return design ? [{ tooth: c.tooth, design }] : [];
    });
    reduce.set({ ...reduce.data, own: [...(reduce.data.own ?? []).filter((o) => !named.has(o.tooth)), ...designs] });
    const ceramics = choices.flatMap(({ tooth: t, ceramic }) => (ceramic ? [{ tooth: t, ceramic }] : []));
    matching.set({
      ...matching.data,
      own: [...(matching.data.own ?? []).filter((o) => !named.has(o.tooth)), ...ceramics],
    });
  };
  const follow = () => {
    const [choices, other] = [data.other ?? [], data.choices];
    const plan: PlanName = (data.plan ?? 'A') === 'A' ? 'B' : 'A';
    set({ ...data, plan, choices, other });
    planned(
      choices,
      [...choices, ...other].map((c) => c.tooth),
    );
  };
  const speaksAgainst = chosen?.said.some((s) => s.effect === 'against' || s.effect === 'reason asked') ?? false;

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
    ) : trouble ? (
      <Trouble sentence={sentence(trouble)} retry={() => setAttempt((n) => n + 1)} />
    ) : bench === 'plans' && data.other ? (
      <PlansSideBySide
        teeth={teeth}
        data={data}
        told={options.told}
        fees={house?.fees ?? []}
        currency={house?.currency ?? ''}
        follow={mayWrite ? follow : undefined}
      />
    ) : !told ? (
      <Waiting what="what each option would take" />
    ) : (
      <div className="h-full overflow-y-auto px-6 pt-14 pb-4">
        <h2 className="title mb-2">{name(tooth)}: what speaks for what</h2>
        <OptionList
          ranked={order}
          fees={house?.fees ?? []}
          currency={house?.currency ?? ''}
          limits={rules.limits}
          chosen={own?.option}
          choose={mayWrite ? choose : undefined}
          switchOff={mayWrite ? (rule) => set({ ...data, rulesOff: [...off, rule] }) : undefined}
        />
      </div>
    );
  return (
    <Stage
      bench={
        <>
          {ready && <PlanChips bench={bench} setBench={setBench} mayWrite={mayWrite} />}
          {body}
        </>
      }
      panel={
        <>
          <ReadOnlyNote section="decide" />
          <Refused sentence={refusal?.detail} />
          <h2 className="title mb-2">{name(tooth)}</h2>
          <p className="mb-2 text-note">
            {own ? `${optionOf(own.option).name}. Upkeep: ${optionOf(own.option).upkeep}.` : 'Not decided.'}
          </p>
          {chosen && (
            <CeramicField
              ranked={chosen}
              ceramic={match.own?.find((o) => o.tooth === tooth)?.ceramic ?? match.ceramic}
              choose={mayWrite ? chooseCeramic : undefined}
            />
          )}
          {chosen && <Held ranked={chosen} facts={facts} />}
          {chosen && speaksAgainst && own && (
            <label className="mb-3 block text-note">
              {chosen.asksReason
                ? 'Why all the same? A rule asks for a written reason.'
                : 'A rule speaks against it. Why all the same?'}
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
              {!own.reason?.trim() && (
                <span className={chosen.asksReason ? 'text-stop' : 'text-ink-2'}>No reason is written yet.</span>
              )}
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
          <WholeCase
            teeth={teeth}
            data={data}
            told={options.told}
            fees={house?.fees ?? []}
            currency={house?.currency ?? ''}
          />
          <RulesOff mayWrite={mayWrite} />
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
