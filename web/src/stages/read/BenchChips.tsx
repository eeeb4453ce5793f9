import type { PhotoView } from '@radiant/contract';
import { Magnet, Rotate3d, ZoomIn } from 'lucide-react';
import type { ReactNode } from 'react';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { type Light, LightControls } from './LightControls.js';
import { OverlayMenu } from './OverlayMenu.js';
import { PhotoUpload } from './PhotoUpload.js';
import type { Mode } from './use-drawing.js';
import type { useOverlays } from './use-overlays.js';

type Switch = readonly [boolean, (on: boolean) => void];

/** What is marked on the bench, and how the photograph is shown. */
export function BenchChips({
  view,
  mode,
  choose,
  scaled,
  snapping: [snapping, setSnapping],
  boxing: [boxing, toggleBoxing],
  magnified: [magnified, setMagnified],
  beside: [beside, setBeside],
  overlays: [overlays, toggleOverlay],
  light: [light, setLight],
}: {
  view: PhotoView;
  mode: Mode;
  choose: (mode: Mode) => void;
  scaled: boolean;
  snapping: Switch;
  boxing: readonly [boolean, () => void];
  magnified: Switch;
  beside: Switch;
  overlays: ReturnType<typeof useOverlays>;
  light: readonly [Light, (light: Light) => void];
}) {
  const mayWrite = useMayWrite('read');
  const front = view === 'retracted-front';
  return (
    <div className="pointer-events-none absolute inset-x-4 top-3.5 flex flex-wrap items-start gap-1 [&>*]:pointer-events-auto [&_.chip]:px-2">
      {front && (
        <button type="button" className="chip" aria-pressed={mode === 'landmarks'} onClick={() => choose('landmarks')}>
          landmarks
        </button>
      )}
      {front && mayWrite && mode === 'landmarks' && (
        <button
          type="button"
          className="chip"
          title="Drag a box over each tooth: its four points are put where its borders are seen (D)"
          aria-pressed={boxing}
          onClick={toggleBoxing}
        >
          by boxes
        </button>
      )}
      {front && mayWrite && (mode === 'landmarks' || mode === 'again') && (
        <button
          type="button"
          className="chip"
          title="Set points a second time without seeing the first: it tells how well this hand sets them"
          aria-pressed={mode === 'again'}
          onClick={() => choose(mode === 'again' ? 'landmarks' : 'again')}
        >
          again
        </button>
      )}
      <button type="button" className="chip" aria-pressed={mode === 'points'} onClick={() => choose('points')}>
        {front ? 'contacts, axes' : 'points'}
      </button>
      <button
        type="button"
        className="chip"
        aria-pressed={mode === 'scale' || mode === 'check'}
        onClick={() => choose('scale')}
      >
        scale{scaled ? '' : ' not set'}
      </button>
      {mayWrite && (
        <>
          <button type="button" className="chip" aria-pressed={mode === 'length'} onClick={() => choose('length')}>
            length
          </button>
          <button type="button" className="chip" aria-pressed={mode === 'angle'} onClick={() => choose('angle')}>
            angle
          </button>
          <IconChip label="snap" hint="E" on={snapping} onPress={() => setSnapping(!snapping)}>
            <Magnet size={15} aria-hidden="true" />
          </IconChip>
        </>
      )}
      <IconChip label="magnifier" hint="G" on={magnified} onPress={() => setMagnified(!magnified)}>
        <ZoomIn size={15} aria-hidden="true" />
      </IconChip>
      {front && (
        <IconChip label="the scan beside it" hint="B" on={beside} onPress={() => setBeside(!beside)}>
          <Rotate3d size={15} aria-hidden="true" />
        </IconChip>
      )}
      <OverlayMenu view={view} on={overlays} toggle={toggleOverlay} />
      <LightControls light={light} onChange={setLight} />
      <span className="flex-1" />
      <PhotoUpload view={view} compact />
    </div>
  );
}

/** A chip of one picture; its name and key show under the pointer. */
function IconChip({
  label,
  hint,
  on,
  onPress,
  children,
}: {
  label: string;
  hint: string;
  on: boolean;
  onPress: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      className="chip"
      aria-label={label}
      title={`${label} (${hint})`}
      aria-pressed={on}
      onClick={onPress}
    >
      {children}
    </button>
  );
}
