import type { Jaw } from '@radiant/core';
import { SHOWING, type ShownPlan, TOOLS, type Tool } from './tools.js';

/** What is shown on the bench, and the tools. */
export function ShapeChips({
  showing,
  setShowing,
  share,
  setShare,
  gum,
  setGum,
  tool,
  setTool,
  toggle,
  jaw,
  otherJaw,
  mayShape,
}: {
  showing: ShownPlan;
  setShowing: (showing: ShownPlan) => void;
  share: number;
  setShare: (share: number) => void;
  gum: boolean;
  setGum: (gum: boolean) => void;
  tool: Tool | undefined;
  setTool: (tool: Tool | undefined) => void;
  toggle: (tool: Tool) => void;
  jaw: Jaw;
  otherJaw: () => void;
  mayShape: boolean;
}) {
  return (
    <div className="pointer-events-none absolute inset-x-4 top-3.5 z-20 flex flex-wrap gap-1.5 [&>*]:pointer-events-auto [&_.chip]:px-2">
      {SHOWING.map(([id, word]) => (
        <button
          key={id}
          type="button"
          className="chip"
          aria-pressed={tool !== 'bite' && tool !== 'smile' && showing === id}
          onClick={() => {
            setShowing(id);
            if (tool === 'bite' || tool === 'smile') setTool(undefined);
          }}
        >
          {word}
        </button>
      ))}
      {showing === 'both' && tool !== 'bite' && (
        <label className="chip">
          <span className="sr-only">How strongly the plan is shown</span>
          <input
            type="range"
            className="w-24 accent-plum"
            min={0}
            max={1}
            step={0.01}
            value={share}
            onChange={(e) => setShare(Number(e.target.value))}
          />
        </label>
      )}
      <button type="button" className="chip" aria-pressed={gum} onClick={() => setGum(!gum)}>
        gum
      </button>
      <button type="button" className="chip" aria-pressed={jaw === 'lower'} onClick={otherJaw}>
        lower teeth
      </button>
      <span className="w-1" />
      {TOOLS.filter(([id]) => id !== 'brush' || mayShape).map(([id, word]) => (
        <button key={id} type="button" className="chip" aria-pressed={tool === id} onClick={() => toggle(id)}>
          {word}
        </button>
      ))}
    </div>
  );
}
