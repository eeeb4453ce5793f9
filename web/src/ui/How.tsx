import type { Figure, Source } from '@radiant/core';
import { Popover } from 'radix-ui';
import { memo, type ReactNode } from 'react';
import { number } from './format.js';

const MARKS: Record<Source['mark'], string> = {
  standard: 'standard',
  published: 'published',
  'common practice': 'common practice',
  house: 'house preference',
  measured: 'measured',
  derived: 'derived',
};

/**
 * Opens the working behind a figure: formula, inputs with units, source and its mark, and the ±. The word "how?", or
 * the figure itself where it is given as a child.
 */
export function How(props: { figure: Figure; what: string; source?: Source; children?: ReactNode }) {
  return <AskedFor {...props} />;
}

/** Figures are worked out anew at every step of a drag; what has kept its value is not drawn again. */
const sameFigure = (a: Figure | undefined, b: Figure | undefined) =>
  a === b || (a?.value === b?.value && a?.pm === b?.pm && a?.unit === b?.unit);

const AskedFor = memo(
  HowView,
  (a, b) => a.what === b.what && a.source === b.source && sameFigure(a.figure, b.figure) && a.children === b.children,
);

/** Two decimals, four of a small number, and none of the zeros at the end. */
function short(value: number): string {
  const [whole, decimals = ''] = number(value, Math.abs(value) < 0.1 && value !== 0 ? 4 : 2).split('.') as [
    string,
    string?,
  ];
  let end = decimals.length;
  while (end > 0 && decimals[end - 1] === '0') end--;
  return end > 0 ? `${whole}.${decimals.slice(0, end)}` : whole;
}

function HowView({
  figure,
  what,
  source,
  children,
}: {
  figure: Figure;
  what: string;
  source?: Source;
  children?: ReactNode;
}) {
  return (
    <Popover.Root>
      <Popover.Trigger
        className={
          children ? 'decoration-plum/60 decoration-dotted underline-offset-[5px] hover:underline' : 'how text-note'
        }
      >
        {children ?? 'how?'}
        <span className="sr-only"> How was this worked out: {what}</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="left"
          align="start"
          sideOffset={8}
          collisionPadding={12}
          className="z-20 w-[340px] rounded-xl border border-hair bg-leaf p-4 shadow-lg"
        >
          <WorkingView figure={figure} what={what} {...(source && { source })} />
          <Popover.Arrow className="fill-hair" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A figure's working in place. */
export function WorkingView({ figure, what, source }: { figure: Figure; what: string; source?: Source }) {
  const digits = figure.unit === 'mm/px' ? 4 : figure.unit === '%' ? 0 : 2;
  return (
    <div className="working">
      <b className="font-semibold">
        {what}: {number(figure.value, digits)}
        {figure.pm > 0 && ` ±${number(figure.pm, digits)}`} {figure.unit}
      </b>
      <p className="mt-0.5">{figure.working.formula}</p>
      <ul className="mt-2 space-y-1">
        {figure.working.inputs.map((i, k) => (
          <li key={`${i.name}${k}`} className="leading-snug">
            {i.name}: <b className="font-semibold">{typeof i.value === 'number' ? short(i.value) : i.value}</b> {i.unit}
            <span className="block text-tiny text-ink-2">
              {MARKS[i.source.mark]}
              {i.source.mark === 'published' || i.source.mark === 'standard' || i.source.mark === 'house'
                ? `: ${i.source.text}`
                : ''}
            </span>
          </li>
        ))}
      </ul>
      {figure.working.note && <p className="mt-2 text-tiny text-ink-2">{figure.working.note}</p>}
      {source && (
        <p className="mt-2 text-tiny text-ink-2">
          Norm, {MARKS[source.mark]}: {source.text}
        </p>
      )}
    </div>
  );
}

/** A figure that opens its own working. */
export const AskedValue = memo(
  AskedValueView,
  (a, b) => a.what === b.what && a.digits === b.digits && a.suffix === b.suffix && sameFigure(a.figure, b.figure),
);

function AskedValueView({
  figure,
  what,
  digits = 1,
  suffix = '',
}: {
  figure: Figure | undefined;
  what: string;
  digits?: number;
  suffix?: string;
}) {
  if (!figure) return <Value figure={figure} />;
  return (
    <How figure={figure} what={what}>
      <Value figure={figure} digits={digits} />
      {suffix}
    </How>
  );
}

/** A figure with its ± in small; no value says so. */
export function Value({
  figure,
  digits = 1,
  unit = false,
}: {
  figure: Figure | undefined;
  digits?: number;
  unit?: boolean;
}) {
  if (!figure) return <span className="text-ink-2">–</span>;
  return (
    <>
      {number(figure.value, digits)}
      {figure.pm > 0 && <span className="pm"> ±{number(figure.pm, digits).replace(/^0\./, '.')}</span>}
      {unit && <span className="pm"> {figure.unit}</span>}
    </>
  );
}
