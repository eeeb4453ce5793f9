import { type AtThickness, type Candidate, type Lab, screenColour, type ThirdMatch } from '@radiant/core';
import { number } from '../../ui/format.js';

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
  const rows = [
    { light: 'daylight', wanted: match.wanted, got: own.planned.lab, dE: own.planned.dE },
    ...(tried
      ? [{ light: `${number(tried.mm, 2)} mm, daylight`, wanted: match.wanted, got: tried.lab, dE: tried.dE }]
      : []),
    { light: 'warm lamp', wanted: match.wantedWarm, got: own.warm, dE: own.warmDE },
  ];
  return (
    <figure className="flex gap-6 rounded-lg bg-bench px-6 py-4" aria-label="Colours beside each other">
      <Swatch lab={match.stump} words={match.stumpRead ? 'stump, read' : 'stump, worked out'} />
      {rows.map(({ light, wanted, got, dE }) => (
        <div key={light} className="flex flex-col gap-1">
          <div className="flex">
            <span className="h-16 w-20" style={{ background: screenColour(wanted) }} />
            <span className="h-16 w-20" style={{ background: screenColour(got) }} />
          </div>
          <span className="text-center text-tiny text-white">
            {light}: wanted · predicted, ΔE00 {number(dE, 1)}
          </span>
        </div>
      ))}
    </figure>
  );
}

function Swatch({ lab, words }: { lab: Lab; words: string }) {
  return (
    <div className="flex flex-col gap-1">
      <span className="h-16 w-20" style={{ background: screenColour(lab) }} />
      <span className="text-center text-tiny text-white">{words}</span>
    </div>
  );
}
