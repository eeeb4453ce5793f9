import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { useCase, useSection } from '../../data/case-context.js';
import { useChairClock } from '../../data/chair-clock.js';
import { usePracticeSettings } from '../../data/use-practice-settings.js';
import { Comments } from '../../shell/Comments.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { Empty, KeyHint, Stage } from '../../ui/StageLayout.js';
import { Waiting } from '../../ui/Waiting.js';
import { useAlarm } from './alarm.js';
import { useAwake } from './awake.js';
import { Materials } from './Materials.js';
import { MustNot } from './MustNot.js';
import { NotHome } from './NotHome.js';
import { Ready } from './Ready.js';
import { Record } from './Record.js';
import { Screen } from './Screen.js';
import { StepList } from './StepList.js';
import { useChair } from './use-chair.js';

/** While a visit is held, what others do on their screens is asked for so often, ms. */
const TOGETHER_MS = 1500;

/** Treat: what now, how long, what next. */
export default function Treat() {
  const { refresh } = useCase();
  const { shown } = usePracticeSettings();
  const { data, refusal } = useSection('treat');
  const mayWrite = useMayWrite('treat');
  const [whole, setWhole] = useState(false);
  const clock = useChairClock(data.timers.some((t) => !t.stoppedAt));
  const chair = useChair(clock);
  const held = !!chair?.held;
  useAlarm(data.timers, clock);
  useAwake(held);
  useEffect(() => {
    if (!held) return;
    const asking = setInterval(() => {
      if (document.visibilityState === 'visible') void refresh().catch(() => undefined);
    }, TOGETHER_MS);
    return () => clearInterval(asking);
  }, [held, refresh]);
  useEffect(() => {
    if (!held) setWhole(false);
  }, [held]);
  useHotkeys('stage', [
    {
      keys: 'B',
      does: 'take the last step back',
      on: ['b', 'pageup'],
      off: !held || !mayWrite,
      run: () => chair?.back(),
    },
    { keys: 'W', does: 'the whole screen', on: ['w'], off: !held, run: () => setWhole(!whole) },
    { keys: 'Esc', does: 'smaller again', on: ['escape'], off: !whole, run: () => setWhole(false) },
  ]);
  if (chair?.held && whole)
    return (
      <div className="fixed inset-0 z-50 bg-leaf">
        <Screen chair={chair} clock={clock} whole setWhole={setWhole} mayWrite={mayWrite} />
      </div>
    );
  return (
    <Stage
      bench={
        !shown ? (
          <Waiting what="the practice’s settings" />
        ) : !chair ? (
          <Empty title="Steps follow from what is decided">
            <p>
              No tooth is planned yet.{' '}
              <Link className="how" to="../shape">
                Go to shape
              </Link>
            </p>
          </Empty>
        ) : chair.held ? (
          <Screen chair={chair} clock={clock} whole={false} setWhole={setWhole} mayWrite={mayWrite} />
        ) : (
          <Ready chair={chair} mayWrite={mayWrite} />
        )
      }
      panel={
        <>
          <ReadOnlyNote section="treat" />
          <Refused sentence={refusal && (refusal.errors?.[0]?.message ?? refusal.detail)} />
          {chair?.held && <MustNot all={chair.protocol.mustNot} />}
          {chair?.held && (
            <section aria-label="Steps">
              <h2 className="title">Steps</h2>
              <StepList chair={chair} />
            </section>
          )}
          {chair && (chair.visit === 'seating' || chair.visit === 'try-in') && (
            <NotHome chair={chair} mayWrite={mayWrite && held} />
          )}
          {chair && <Materials chair={chair} mayWrite={mayWrite} />}
          <Record />
          <Comments stage="treat" />
        </>
      }
      foot={
        <>
          <KeyHint keys={['N']} does="done, next" />
          <KeyHint keys={['B']} does="back" />
          <KeyHint keys={['W']} does="whole screen" />
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">
            Times and orders are common practice: a product’s own directions and local rules go before them.
          </span>
        </>
      }
    />
  );
}
