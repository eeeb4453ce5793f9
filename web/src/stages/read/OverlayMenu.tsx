import type { PhotoView } from '@radiant/contract';
import { Layers } from 'lucide-react';
import { Popover } from 'radix-ui';
import { memo } from 'react';
import { OVERLAYS, type OverlayId, overlaysFor } from './use-overlays.js';

/** Each overlay of the view with its own switch. */
export const OverlayMenu = memo(function OverlayMenu({
  view,
  on,
  toggle,
}: {
  view: PhotoView;
  on: ReadonlySet<OverlayId>;
  toggle: (id: OverlayId) => void;
}) {
  const all = overlaysFor(view);
  if (all.length === 0) return null;
  return (
    <Popover.Root>
      <Popover.Trigger className="chip" aria-label={`overlays${on.size > 0 ? ` ${on.size}` : ''}`} title="overlays">
        <Layers size={15} aria-hidden="true" /> {on.size > 0 && on.size}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={8}
          className="z-20 w-[250px] rounded-xl border border-hair bg-leaf p-3 shadow-lg"
        >
          {all.map((id) => (
            <label key={id} className="flex h-8 cursor-pointer items-center gap-2.5">
              <input type="checkbox" className="accent-plum" checked={on.has(id)} onChange={() => toggle(id)} />
              {OVERLAYS[id]}
            </label>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
});
