import type { Jaw } from '@radiant/core';
import { ARCH_VIEWS, type ViewName } from './arch-eye.js';
import { viewWords } from './view-words.js';

/** From where an arch is looked at. */
export function ViewChips({ jaw, look }: { jaw: Jaw; look: (view: ViewName) => void }) {
  return (
    <div className="ml-auto flex flex-wrap justify-end gap-1.5">
      {ARCH_VIEWS.map((v) => (
        <button key={v} type="button" className="chip" onClick={() => look(v)}>
          {viewWords(v, jaw)}
        </button>
      ))}
    </div>
  );
}
