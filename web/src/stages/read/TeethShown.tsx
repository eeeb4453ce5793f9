import { LAST_SEEN, readingOf } from '@radiant/contract';
import { useBenchReading } from '../../data/bench-reading.js';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';

/** Which upper teeth a full smile shows: the last one on each side, and how many that makes. */
export function TeethShown() {
  const { data } = useSection('read');
  const { change, photo } = useBenchReading('close-smile');
  const mayWrite = useMayWrite('read');
  const name = useToothLabel();
  if (!photo) return null;
  const { lastRight, lastLeft } = readingOf(data, 'close-smile');
  const side = (which: 'right' | 'left', value: number | null | undefined) => (
    <select
      aria-label={`Last tooth seen on the ${which}`}
      className="field h-7 w-[68px] px-1 text-note"
      value={value ?? ''}
      disabled={!mayWrite}
      onChange={(e) => {
        const tooth = e.target.value ? Number(e.target.value) : null;
        change({ photoId: photo.id, ...(which === 'right' ? { lastRight: tooth } : { lastLeft: tooth }) });
      }}
    >
      <option value="">?</option>
      {LAST_SEEN[which].map((t) => (
        <option key={t} value={t}>
          {name(t)}
        </option>
      ))}
    </select>
  );
  return (
    <p className="mt-3 flex items-center gap-1.5 text-body">
      <span className="whitespace-nowrap">teeth shown</span> {side('right', lastRight)} to {side('left', lastLeft)}
      <b className="ml-auto font-semibold" data-testid="teeth-shown">
        {lastRight && lastLeft ? (lastRight % 10) + (lastLeft % 10) : '–'}
      </b>
    </p>
  );
}
