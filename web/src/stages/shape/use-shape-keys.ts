import type { Dispatch, SetStateAction } from 'react';
import type { ViewName } from '../../bench/arch-eye.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { AMOUNT_STEP, type BrushSetting, RADIUS_STEP, turned } from './BrushCard.js';
import { SHOWING, type ShownPlan, TOOLS, type Tool, VIEW_KEYS } from './tools.js';

/** The keys of the bench. */
export function useShapeKeys({
  look,
  otherJaw,
  setShowing,
  toggle,
  setBrush,
  putAway,
  mayShape,
}: {
  look: (name: ViewName) => void;
  otherJaw: () => void;
  setShowing: (showing: ShownPlan) => void;
  toggle: (tool: Tool) => void;
  setBrush: Dispatch<SetStateAction<BrushSetting>>;
  putAway: () => void;
  mayShape: boolean;
}): void {
  useHotkeys('stage', [
    {
      keys: 'F R L A',
      does: 'view from front, right, left, above',
      on: ['f', 'r', 'l', 'a'],
      each: ['view from the front', 'view from the right', 'view from the left', 'view from above'],
      run: (key) => look(VIEW_KEYS[key] as ViewName),
    },
    {
      keys: 'E T H',
      does: 'view edge-on, from twelve o’clock, from behind',
      on: ['e', 't', 'h'],
      each: ['view edge-on', 'view from twelve o’clock', 'view from behind'],
      run: (key) => look(VIEW_KEYS[key] as ViewName),
    },
    { keys: 'J', does: 'the other jaw', on: ['j'], run: otherJaw },
    {
      keys: '1 2 3 4',
      does: 'existing, planned, added and removed, both',
      on: ['1', '2', '3', '4'],
      each: ['show the scan', 'show the plan', 'show what is added and removed', 'show both'],
      run: (key) => setShowing((SHOWING[Number(key) - 1] as (typeof SHOWING)[number])[0]),
    },
    {
      keys: 'B X O I S',
      does: 'brush, section, bite, light, in the smile',
      on: TOOLS.filter((t) => t[0] !== 'brush' || mayShape).map((t) => t[2]),
      each: TOOLS.filter((t) => t[0] !== 'brush' || mayShape).map((t) => `${t[1]}, on or off`),
      run: (key) => toggle((TOOLS.find((t) => t[2] === key) as (typeof TOOLS)[number])[0]),
    },
    {
      keys: ', .',
      does: 'brush smaller, larger',
      on: [',', '.'],
      each: ['brush smaller', 'brush larger'],
      run: (key) => setBrush((b) => turned(b, 'radiusMm', key === ',' ? -RADIUS_STEP : RADIUS_STEP)),
    },
    {
      keys: "; '",
      does: 'brush weaker, stronger',
      on: [';', "'"],
      run: (key) => setBrush((b) => turned(b, 'amountMm', key === ';' ? -AMOUNT_STEP : AMOUNT_STEP)),
    },
    { keys: 'M', does: 'brush on both sides', on: ['m'], run: () => setBrush((b) => ({ ...b, mirror: !b.mirror })) },
    { keys: 'Esc', does: 'put the tool away', on: ['escape'], run: putAway },
    { keys: 'Alt, Shift while drawing', does: 'the opposite of adding; smooth' },
    { keys: '↑ ↓ in a field', does: 'one step; with Shift ten' },
  ]);
}
