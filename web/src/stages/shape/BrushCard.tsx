import { BRUSH_LIMITS, type Stroke } from '@radiant/core';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { number } from '../../ui/format.js';

/** How the brush is set. */
export interface BrushSetting {
  readonly tool: Stroke['tool'];
  readonly radiusMm: number;
  readonly amountMm: number;
  readonly mirror: boolean;
}

export const FIRST_BRUSH: BrushSetting = { tool: 'add', radiusMm: 1.5, amountMm: 0.1, mirror: false };
export const RADIUS_STEP = 0.1;
export const AMOUNT_STEP = 0.02;

const TOOLS: readonly (readonly [Stroke['tool'], string])[] = [
  ['add', 'add'],
  ['remove', 'remove'],
  ['smooth', 'smooth'],
];

/** A brush with one number moved, within its limits. */
export function turned(b: BrushSetting, what: 'radiusMm' | 'amountMm', by: number): BrushSetting {
  const limit = what === 'radiusMm' ? BRUSH_LIMITS.radiusMm : BRUSH_LIMITS.amount;
  const v = Math.round((b[what] + by) * 100) / 100;
  return { ...b, [what]: Math.min(limit.max, Math.max(limit.min, v)) };
}

/** Settings of the brush, what it last refused, and the strokes that lie on the tooth. */
export function BrushCard({
  brush,
  setBrush,
  refusal,
}: {
  brush: BrushSetting;
  setBrush: (b: BrushSetting) => void;
  refusal: string | undefined;
}) {
  const { tooth } = useCase();
  const shape = useSection('shape');
  const name = useToothLabel();
  const strokes = shape.data.teeth.find((t) => t.tooth === tooth)?.strokes?.length ?? 0;
  return (
    <section aria-label="Brush" className="text-note">
      <div className="mb-2 flex gap-1">
        {TOOLS.map(([tool, word]) => (
          <button
            key={tool}
            type="button"
            className="chip chip-flat"
            aria-pressed={brush.tool === tool}
            onClick={() => setBrush({ ...brush, tool })}
          >
            {word}
          </button>
        ))}
      </div>
      <Dial
        label="Size"
        value={`${number(brush.radiusMm, 1)} mm`}
        keys=", ."
        less={() => setBrush(turned(brush, 'radiusMm', -RADIUS_STEP))}
        more={() => setBrush(turned(brush, 'radiusMm', RADIUS_STEP))}
      />
      <Dial
        label={brush.tool === 'smooth' ? 'Strength' : brush.tool === 'add' ? 'Adds' : 'Removes'}
        value={brush.tool === 'smooth' ? `${number(brush.amountMm * 100, 0)} %` : `${number(brush.amountMm, 2)} mm`}
        keys="; '"
        less={() => setBrush(turned(brush, 'amountMm', -AMOUNT_STEP))}
        more={() => setBrush(turned(brush, 'amountMm', AMOUNT_STEP))}
      />
      <label className="mt-1 flex items-center gap-2">
        <input
          type="checkbox"
          className="h-4 w-4 accent-plum"
          checked={brush.mirror}
          onChange={(e) => setBrush({ ...brush, mirror: e.target.checked })}
        />
        mirror to the other side <kbd className="key">M</kbd>
      </label>
      <p className="mt-2 text-ink-2">
        Draw on a crown; <kbd className="key">Alt</kbd> turns add and remove round, <kbd className="key">Shift</kbd>{' '}
        smooths.
      </p>
      {strokes > 0 && (
        <p className="mt-2 flex justify-between">
          <span>
            {strokes} {strokes === 1 ? 'stroke' : 'strokes'} on {name(tooth)}
          </span>
          <button
            type="button"
            className="how"
            onClick={() =>
              shape.set({
                ...shape.data,
                teeth: shape.data.teeth.map((t) => {
                  if (t.tooth !== tooth) return t;
                  const { strokes: _, ...rest } = t;
                  return rest;
                }),
              })
            }
          >
            take off
          </button>
        </p>
      )}
      {refusal && (
        <p role="alert" className="mt-2 text-stop">
          {refusal}
        </p>
      )}
    </section>
  );
}

function Dial({
  label,
  value,
  keys,
  less,
  more,
}: {
  label: string;
  value: string;
  keys: string;
  less: () => void;
  more: () => void;
}) {
  return (
    <div className="mb-1 flex items-center gap-2">
      <span className="w-[64px]">{label}</span>
      <button
        type="button"
        className="chip chip-flat h-6 w-6 justify-center px-0"
        aria-label={`${label}: less`}
        onClick={less}
      >
        −
      </button>
      <b className="w-[58px] text-center font-semibold">{value}</b>
      <button
        type="button"
        className="chip chip-flat h-6 w-6 justify-center px-0"
        aria-label={`${label}: more`}
        onClick={more}
      >
        +
      </button>
      <span className="ml-auto flex gap-1">
        {keys.split(' ').map((k) => (
          <kbd key={k} className="key">
            {k}
          </kbd>
        ))}
      </span>
    </div>
  );
}
