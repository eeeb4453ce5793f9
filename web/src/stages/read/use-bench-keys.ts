import { useHotkeys } from '../../ui/hotkeys.js';

/** The keys of the bench. */
export function useBenchKeys({
  front,
  takeGuess,
  skip,
  box,
  magnify,
  snap,
  scanBeside,
  takeBack,
  putAway,
}: {
  front: boolean;
  takeGuess: () => void;
  skip: () => void;
  box: () => void;
  magnify: () => void;
  snap: () => void;
  scanBeside: () => void;
  /** Takes back what is half set; undefined where nothing is. */
  takeBack: (() => void) | undefined;
  /** Puts the tool away that is in hand; undefined where none is. */
  putAway: (() => void) | undefined;
}): void {
  // What is half set is no step yet: undo takes it back before it reaches for what was done before.
  useHotkeys('tool', [
    {
      keys: 'Esc',
      does: takeBack ? 'take back what is half set' : 'put the tool away',
      on: ['escape'],
      off: !takeBack && !putAway,
      run: () => (takeBack ?? putAway)?.(),
    },
    { keys: 'Ctrl Z', does: 'take back what is half set', on: ['mod+z'], off: !takeBack, run: () => takeBack?.() },
  ]);
  useHotkeys('stage', [
    { keys: 'click', does: 'set the point that is next' },
    { keys: 'Tab', does: 'next landmark' },
    { keys: '← ↑ → ↓', does: 'nudge the landmark 1 px' },
    { keys: 'Shift ← ↑ → ↓', does: 'nudge 0.1 px' },
    { keys: 'Delete', does: 'take the landmark away' },
    { keys: 'D', does: 'drag boxes over teeth: four points at once', on: ['d'], off: !front, run: box },
    { keys: 'G', does: 'magnifier', on: ['g'], run: magnify },
    { keys: 'E', does: 'snap to the strongest edge near the click', on: ['e'], run: snap },
    {
      keys: 'M',
      does: 'take the scan’s place, or the one that mirrors the other side',
      on: ['m'],
      run: takeGuess,
    },
    { keys: 'B', does: 'the scan beside the photograph', on: ['b'], off: !front, run: scanBeside },
    {
      keys: 'X',
      does: 'point not seen: go on to the next',
      on: ['x'],
      run: skip,
    },
    { keys: 'drag', does: 'pan; a landmark: move it' },
  ]);
}
