import { Sun } from 'lucide-react';
import { Popover, Slider } from 'radix-ui';
import { memo } from 'react';

/** How the photograph is shown; the file itself is never changed. 1 is as it was taken. */
export interface Light {
  readonly brightness: number;
  readonly contrast: number;
}

export const AS_TAKEN: Light = { brightness: 1, contrast: 1 };

/** The light as a CSS filter; none when it is as taken. */
export const filterOf = (l: Light): string | undefined =>
  l.brightness === 1 && l.contrast === 1 ? undefined : `brightness(${l.brightness}) contrast(${l.contrast})`;

/** Brightness and contrast of what is shown. */
export const LightControls = memo(function LightControls({
  light,
  onChange,
}: {
  light: Light;
  onChange: (l: Light) => void;
}) {
  return (
    <Popover.Root>
      <Popover.Trigger className="chip" aria-label="light" title="light" data-state={filterOf(light) ? 'on' : 'off'}>
        <Sun size={15} aria-hidden="true" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={8}
          className="z-20 w-[280px] rounded-xl border border-hair bg-leaf p-4 shadow-lg"
        >
          <Amount
            label="Brightness"
            value={light.brightness}
            onChange={(brightness) => onChange({ ...light, brightness })}
          />
          <Amount label="Contrast" value={light.contrast} onChange={(contrast) => onChange({ ...light, contrast })} />
          <p className="mb-3 text-fine text-ink-2">For looking only; the photograph stays as it was taken.</p>
          <button
            type="button"
            className="btn btn-ghost w-full"
            disabled={!filterOf(light)}
            onClick={() => onChange(AS_TAKEN)}
          >
            As taken
          </button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
});

function Amount({ label, value, onChange }: { label: string; value: number; onChange: (v: number) => void }) {
  return (
    <div className="mb-4">
      <div className="mb-2 flex justify-between">
        <span>{label}</span>
        <span>{Math.round(100 * value)} %</span>
      </div>
      <Slider.Root
        className="relative flex h-4 items-center"
        min={0.5}
        max={2}
        step={0.05}
        value={[value]}
        onValueChange={([v]) => v !== undefined && onChange(v)}
      >
        <Slider.Track className="relative h-1 flex-1 rounded bg-hair">
          <Slider.Range className="absolute h-1 rounded bg-plum" />
        </Slider.Track>
        <Slider.Thumb aria-label={label} className="block h-4 w-4 rounded-full border-2 border-plum bg-leaf shadow" />
      </Slider.Root>
    </div>
  );
}
