import type { CaseFile } from '@radiant/contract';
import type { Similarity } from '@radiant/core';
import { Slider } from 'radix-ui';
import { useId, useState } from 'react';
import { PALETTE } from '../../ui/palette.js';

/**
 * Two photographs in the left one's frame: beside each other, or one under the other with a line to be drawn across.
 */
export function Laid({
  left,
  right,
  srcOf,
  lay,
  sideBySide,
  labels,
}: {
  left: CaseFile;
  right: CaseFile;
  srcOf: (f: CaseFile) => string;
  lay: Similarity | undefined;
  sideBySide: boolean;
  labels: readonly [string, string];
}) {
  const [share, setShare] = useState(50);
  const clip = useId();
  const [w, h] = [left.width ?? 1, left.height ?? 1];
  const fit = w / (right.width ?? 1);
  const transform = lay ? `matrix(${lay.a} ${lay.b} ${-lay.b} ${lay.a} ${lay.tx} ${lay.ty})` : `scale(${fit})`;
  const first = <image href={srcOf(left)} width={w} height={h} />;
  const second = (
    <image href={srcOf(right)} width={right.width ?? 1} height={right.height ?? 1} transform={transform} />
  );
  const note = !lay && (
    <p className="text-center text-note text-white">
      Not laid over each other yet: set two points on each under “align”.
    </p>
  );
  if (sideBySide) {
    return (
      <div className="grid h-full grid-rows-[minmax(0,1fr)_auto] gap-2">
        <div className="grid min-h-0 grid-cols-2 gap-4">
          {[first, second].map((picture, i) => (
            <figure key={labels[i]} className="flex min-h-0 flex-col">
              <svg viewBox={`0 0 ${w} ${h}`} className="min-h-0 flex-1" role="img" aria-label={labels[i]}>
                {picture}
              </svg>
              <figcaption className="pt-1 text-center text-note text-white">{labels[i]}</figcaption>
            </figure>
          ))}
        </div>
        {note}
      </div>
    );
  }
  return (
    <div className="grid h-full grid-rows-[minmax(0,1fr)_auto_auto] gap-2">
      <svg
        viewBox={`0 0 ${w} ${h}`}
        className="mx-auto h-full min-h-0 max-w-full"
        role="img"
        aria-label={`${labels[0]} under ${labels[1]}`}
      >
        <clipPath id={clip}>
          <rect x={(w * share) / 100} y={0} width={w} height={h} />
        </clipPath>
        {first}
        <g clipPath={`url(#${clip})`} data-testid="laid-over">
          {second}
        </g>
        <path d={`M${(w * share) / 100} 0V${h}`} stroke={PALETTE.white} strokeWidth={w / 400} />
      </svg>
      <div className="mx-auto grid w-[640px] max-w-full grid-cols-[1fr_300px_1fr] items-center gap-4 text-note text-white">
        <span className="text-right">{labels[0]}</span>
        <Slider.Root
          className="relative flex h-6 items-center"
          min={0}
          max={100}
          step={1}
          value={[share]}
          onValueChange={([v]) => v !== undefined && setShare(v)}
        >
          <Slider.Track className="relative h-1 flex-1 rounded bg-white/40" />
          <Slider.Thumb
            aria-label="Where the line stands"
            className="block h-5 w-5 rounded-full border-2 border-plum bg-leaf shadow"
          />
        </Slider.Root>
        <span>{labels[1]}</span>
      </div>
      {note}
    </div>
  );
}
