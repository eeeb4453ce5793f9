import { readingAt, THIRD_OF, wantedAt } from '@radiant/contract';
import type { ContourPlan } from '@radiant/core';
import {
  type DirectColours,
  type DirectSettings,
  type DirectWork,
  READING_ZONES,
  type ReadingZone,
  SHADE_SCHOOLS,
  screenColour,
} from '@radiant/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { usePracticeSettings } from '../../data/use-practice-settings.js';
import type { CaseClient } from '../../engine/case-client.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { number } from '../../ui/format.js';
import { Waiting } from '../../ui/Waiting.js';

/** Less of a body is none, mm. */
const FILM_MM = 0.05;
const ZONE_WORDS: Readonly<Record<string, string>> = { incisal: 'edge', middle: 'middle', cervical: 'gum' };

/** Which composites of the house's list come nearest to the neighbour, zone by zone, in both schools. */
export function ColourLayers({
  client,
  plan,
  settings,
  work,
}: {
  client: CaseClient | undefined;
  plan: ContourPlan;
  settings: DirectSettings;
  work: DirectWork;
}) {
  const { tooth } = useCase();
  const match = useSection('match').data;
  const plates = usePracticeSettings().shown?.plates;
  const name = useToothLabel();
  const sentence = useSentence();
  const colours = useMemo((): DirectColours => {
    const of = (read: (zone: ReadingZone) => { L: number; a: number; b: number } | undefined) =>
      Object.fromEntries(
        READING_ZONES.flatMap((zone) => {
          const lab = read(zone);
          return lab ? [[THIRD_OF[zone], { L: lab.L, a: lab.a, b: lab.b }]] : [];
        }),
      );
    return {
      wanted: of((zone) => wantedAt(match, tooth, zone) ?? readingAt(match, tooth, 'tooth', zone)),
      tooth: of((zone) => readingAt(match, tooth, 'tooth', zone)),
      plates: plates ?? [],
    };
  }, [match, tooth, plates]);
  const input = useMemo(() => [tooth, settings, work, colours] as const, [tooth, settings, work, colours]);
  const asked = useAsked(client, plan, 'directColours', input);
  const told = shownOf(asked);
  const dry = match.readings.some((r) => !r.wet && (r.tooth === tooth || r.tooth === match.like));
  if (asked.state === 'failed') return <p className="px-6 pt-6">{sentence(asked.sentence)}</p>;
  if (!told) return <Waiting what="the colours of the layers" />;
  if (told.schools.length === 0)
    return (
      <p className="px-6 pt-6 text-ink-2">
        {told.thirds.length === 0
          ? 'Composite covers too little of the face to speak of its colour.'
          : `No colour is wanted for ${name(tooth)} yet. `}
        {told.thirds.length > 0 && (
          <Link className="how" to="../match">
            Read the neighbour in match
          </Link>
        )}
      </p>
    );
  const best = told.schools.reduce((a, b) => (b.worstDE < a.worstDE - 0.3 ? b : a));
  return (
    <div className="px-6 pt-4 pb-6">
      {dry && (
        <p className="finding mb-3" data-weight="watch">
          A reading was not taken wet: a dry tooth is lighter than it will be. Read it again under saliva, before the
          dam.
        </p>
      )}
      <div className="grid gap-5 xl:grid-cols-2">
        {told.schools.map((s) => (
          <section
            key={s.school}
            aria-label={SHADE_SCHOOLS[s.school]}
            className="rounded-xl border border-hair bg-leaf p-5"
          >
            <h3 className="title">
              {SHADE_SCHOOLS[s.school]}
              {s === best && <span className="ml-2 text-note font-normal text-plum">proposed</span>}
            </h3>
            <p className="mb-3 text-note text-ink-2">
              Furthest off: ΔE00 {number(s.worstDE, 1)}.{' '}
              {s.school === 'two'
                ? 'The same two everywhere: quick, and forgiving of depth.'
                : 'Nearer where it is read well; every layer has to keep its thickness.'}
            </p>
            {s.zones.map((z) => {
              const third = told.thirds.find((t) => t.third === z.zone);
              const wanted = colours.wanted[z.zone as keyof typeof colours.wanted];
              return (
                <div key={z.zone} className="mb-3 flex gap-4">
                  <span className="flex h-14 w-28 shrink-0 overflow-hidden rounded-md" aria-hidden>
                    <span className="flex-1" style={{ background: wanted && screenColour(wanted) }} />
                    <span className="flex-1" style={{ background: screenColour(z.mix.lab) }} />
                  </span>
                  <p className="min-w-0 text-note">
                    <b>{ZONE_WORDS[z.zone] ?? z.zone}</b>, ΔE00 {number(z.mix.dE, 1)}: {told.names[z.mix.enamel]}{' '}
                    {third && number(third.enamelMm, 2)} mm
                    {third && third.bodyMm > FILM_MM
                      ? ` over ${[...new Set(z.mix.bodies)].map((b) => told.names[b]).join(', then ')} ${number(third.bodyMm, 2)} mm`
                      : ''}
                    {third?.open ? ', the mouth’s dark behind' : ', tooth behind'}.{' '}
                    <span className="text-ink-2">
                      A tenth more enamel: {z.tenthL < 0 ? 'darker' : 'lighter'} by {number(Math.abs(z.tenthL), 2)} L*.
                    </span>
                  </p>
                </div>
              );
            })}
          </section>
        ))}
      </div>
      <p className="mt-3 text-note text-ink-2">
        Left what is wanted, right what it comes to. Generic composites are illustrative: plates of your own that are
        called “composite, body …” or “composite, enamel …” in the house’s list stand in for them. Cure a button of each
        on the wet tooth; the colour is judged again at a week.
      </p>
    </div>
  );
}
