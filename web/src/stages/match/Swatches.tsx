import { type AtThickness, type Candidate, type Lab, screenColour, type ThirdMatch } from '@radiant/core';
import { number } from '../../ui/format.js';

/** Colours side by side in one light. */
interface Row {
  readonly light: string;
  readonly colours: readonly Lab[];
  readonly words: string;
}

/** What is wanted, what was read and what is predicted beside each other, by daylight and under a warm lamp. */
export function Swatches({
  match,
  own,
  tried,
}: {
  match: ThirdMatch;
  own: Candidate;
  /** Another thickness than the planned one. */
  tried: AtThickness | undefined;
}) {
  const rows: readonly Row[] = [
    {
      light: 'daylight',
      colours: [match.wanted, own.planned.lab, ...(tried ? [tried.lab] : [])],
      words: `wanted · planned, ΔE00 ${number(own.planned.dE, 1)}${tried ? ` · at ${number(tried.mm, 2)} mm, ${number(tried.dE, 1)}` : ''}`,
    },
    {
      light: 'warm lamp',
      colours: [match.wantedWarm, own.warm],
      words: `wanted · planned, ΔE00 ${number(own.warmDE, 1)}`,
    },
  ];
  return (
    <figure className="flex gap-6 rounded-lg bg-bench px-6 py-3" aria-label="Colours beside each other">
      <Swatch lab={match.stump} words={match.stumpRead ? 'stump, read' : 'stump, worked out'} />
      {rows.map(({ light, colours, words }) => (
        <div key={light} className="flex flex-col gap-1">
          <div className="flex">
            {colours.map((lab, i) => (
              <span key={i} className="h-14 min-w-20 flex-1" style={{ background: screenColour(lab) }} />
            ))}
          </div>
          <span className="text-center text-tiny text-white">
            {light}: {words}
          </span>
        </div>
      ))}
    </figure>
  );
}

function Swatch({ lab, words }: { lab: Lab; words: string }) {
  return (
    <div className="flex flex-col gap-1">
      <span className="h-14 w-20" style={{ background: screenColour(lab) }} />
      <span className="text-center text-tiny text-white">{words}</span>
    </div>
  );
}
