import { type ScaleInput, wantedShade } from '@radiant/contract';
import { LETTER_SCALE, READING_ZONES, screenColour } from '@radiant/core';
import { Link } from 'react-router';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { usePracticeSettings } from '../../data/use-practice-settings.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';

/** What is wanted: a shade of a scale, and where a tooth was read that the others are to look like, that one. */
export function WantedField() {
  const { data, set } = useSection('match');
  const mayWrite = useMayWrite('match');
  const name = useToothLabel();
  const scales: readonly ScaleInput[] = usePracticeSettings().shown?.scales ?? [];
  const own = data.wantedColour;
  // A shade whose scale the house has taken out or changed stays as the case has it.
  const known = !own || scales.some((s) => s.name === own.scale && s.shades.some((x) => x.name === data.wanted));
  const value = data.wanted ? JSON.stringify([own?.scale ?? '', data.wanted]) : '';
  const lab = wantedShade(data);
  const models = [...new Set(data.readings.filter((r) => r.of === 'tooth').map((r) => r.tooth))].sort();
  const choose = (text: string) => {
    if (text === '') return set({ ...data, wanted: null, wantedColour: null });
    const [scale, shade] = JSON.parse(text) as [string, string];
    const found = scales.find((s) => s.name === scale)?.shades.find((s) => s.name === shade);
    if (scale !== '' && !found) return;
    set({ ...data, wanted: shade, wantedColour: found ? { scale, L: found.L, a: found.a, b: found.b } : null });
  };
  return (
    <div className="mb-3 text-note">
      <label className="flex items-center gap-2">
        wanted shade
        {lab && (
          <span
            className="h-6 w-6 rounded border border-hair"
            style={{ background: screenColour(lab) }}
            aria-hidden="true"
          />
        )}
        <select
          aria-label="Wanted shade"
          className="field h-8 min-w-0 flex-1 px-2"
          disabled={!mayWrite}
          value={value}
          onChange={(e) => choose(e.target.value)}
        >
          <option value="">not chosen</option>
          {!known && (
            <option value={value}>
              {data.wanted} of {own?.scale}, as the case has it
            </option>
          )}
          <optgroup label="letter scale">
            {LETTER_SCALE.shades.map((s) => (
              <option key={s.name} value={JSON.stringify(['', s.name])}>
                {s.name}
              </option>
            ))}
          </optgroup>
          {scales.map((scale) => (
            <optgroup key={scale.name} label={scale.name}>
              {scale.shades.map((s) => (
                <option key={s.name} value={JSON.stringify([scale.name, s.name])}>
                  {s.name}
                </option>
              ))}
            </optgroup>
          ))}
        </select>
      </label>
      <p className="mt-0.5 text-tiny text-ink-2">
        <Link className="how" to="/materials">
          scales and ceramics of the house
        </Link>
      </p>
      {models.length > 0 && (
        <label className="mt-1 flex items-center gap-2">
          like the tooth
          <select
            aria-label="Tooth to look like"
            className="field h-8 min-w-0 flex-1 px-2"
            disabled={!mayWrite}
            value={data.like ?? ''}
            onChange={(e) => set({ ...data, like: e.target.value ? Number(e.target.value) : null })}
          >
            <option value="">the shade alone</option>
            {models.map((t) => (
              <option key={t} value={t}>
                {name(t)},{' '}
                {READING_ZONES.filter((z) => data.readings.some((r) => r.tooth === t && r.zone === z)).join(', ')}
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}
