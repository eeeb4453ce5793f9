import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import type { LineDrawing } from './use-line.js';

/** Draws the finish line where an eye sees it better than the program. */
export function LineField({ line }: { line: LineDrawing }) {
  const { tooth } = useCase();
  const name = useToothLabel();
  const { data } = useSection('verify');
  const mayWrite = useMayWrite('verify');
  const drawn = (data.lines ?? []).some((l) => l.tooth === tooth);
  if (!mayWrite && !drawn) return null;
  return (
    <section aria-label="Finish line by hand" className="mt-5">
      <h2 className="subtitle mb-1">Finish line by hand</h2>
      <p className="text-note text-ink-2">
        {line.on
          ? 'Drag on the tooth: the line goes to the pointer, and what lies beside it along with it.'
          : drawn
            ? `A part of the line of ${name(tooth)} is drawn by hand, and judged as it is drawn.`
            : 'Where gum or saliva hides it, draw the line as you see it.'}
      </p>
      {mayWrite && (
        <p className="mt-1 flex gap-3.5 text-note">
          <button type="button" className="how" aria-pressed={line.on} onClick={() => line.set(!line.on)}>
            {line.on ? 'drawn' : 'draw it'}
          </button>
          {drawn && (
            <button type="button" className="how" onClick={() => line.forget(tooth)}>
              as it is found
            </button>
          )}
        </p>
      )}
    </section>
  );
}
