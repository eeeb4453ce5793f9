import type { PracticeSettings, Who } from '@radiant/contract';
import type { ReactNode } from 'react';
import { type PracticeSettingsHere, usePracticeSettings } from '../data/use-practice-settings.js';
import { Trouble, Waiting } from '../ui/Waiting.js';
import { PracticePage } from './PracticePage.js';

/** A page of what the house has set; a dentist changes it, others look at it. */
export function HousePage({
  who,
  title,
  children,
}: {
  who: Who;
  title: string;
  children: (shown: PracticeSettings, set: PracticeSettingsHere['set']) => ReactNode;
}) {
  const { shown, trouble, retry, refusal, set } = usePracticeSettings();
  const mayWrite = who.role === 'dentist';
  return (
    <PracticePage who={who} title={title}>
      {!shown ? (
        trouble ? (
          <Trouble sentence={trouble} retry={retry} />
        ) : (
          <Waiting what="what the house has set" />
        )
      ) : (
        <>
          {!mayWrite && <p className="mb-4 text-ink-2">A dentist of the practice changes these.</p>}
          {refusal && (
            <p role="alert" className="mb-4 text-stop">
              {refusal}
            </p>
          )}
          <fieldset disabled={!mayWrite} className="min-w-0">
            {children(shown, set)}
          </fieldset>
        </>
      )}
    </PracticePage>
  );
}
