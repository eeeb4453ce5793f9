import { adviseGum, GUM_LIMITS, type GumFacts } from '@radiant/core';
import { useMemo } from 'react';
import { useSection } from '../../data/case-context.js';
import { useReading } from '../../data/reading.js';
import { useFront } from '../../engine/use-front.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { signed } from '../../ui/format.js';
import { NumberField } from '../../ui/NumberField.js';
import { Advised } from './Advised.js';

/** What is known of how much gum a smile shows, and how short the centrals are. */
function useGumFacts(edgeMm: number): GumFacts {
  const { figures } = useReading();
  const front = useFront();
  return useMemo(() => {
    const shown = [11, 21].flatMap((t) => figures['close-smile']?.find((f) => f.id === `gum-${t}`)?.figure ?? []);
    const least = shown.sort((a, b) => a.value - b.value)[0];
    const centrals =
      front.state === 'ready' ? front.front.measures.filter((m) => m.tooth === 11 || m.tooth === 21) : [];
    const short = centrals
      .filter((m) => m.length && m.width)
      .sort((a, b) => (a.length?.value ?? 0) - (b.length?.value ?? 0))[0];
    return {
      edgeMm,
      ...(least && { gumMm: least.value, gumPm: least.pm }),
      ...(short?.length && short.width && { lengthMm: short.length.value, widthMm: short.width.value }),
    };
  }, [figures, front, edgeMm]);
}

/** How far the gum is moved up: what the program proposes under a high lip, and the dentist's number. */
export function GumField() {
  const { data, set, store } = useSection('propose');
  const mayWrite = useMayWrite('propose');
  const advice = adviseGum(useGumFacts(data.edgeMm));
  const gumMm = data.gumMm ?? 0;
  return (
    <>
      {advice && (
        <Advised
          testId="gum-advice"
          title={`Gum: ${signed(advice.gumMm, 1)} mm`}
          because={advice.because}
          change={advice.gumMm - gumMm}
          mayTake={mayWrite}
          onTake={() => set({ ...data, gumMm: advice.gumMm })}
        />
      )}
      <NumberField
        label="Gum moved up"
        unit="mm"
        value={gumMm}
        min={GUM_LIMITS.min}
        max={GUM_LIMITS.max}
        step={0.1}
        digits={1}
        disabled={!mayWrite}
        onChange={(v) => set({ ...data, gumMm: v }, 'gum')}
        onDone={() => store.endGroup()}
      />
    </>
  );
}
