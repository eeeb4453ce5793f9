import {
  type EdgeTranslucency,
  type SurfaceTexture,
  TEXTURES,
  type ToothCharacter,
  TRANSLUCENCIES,
} from '@radiant/contract';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';

/** What the technician is told of a tooth beside its shade. */
export function CharacterFields() {
  const { tooth, detail, notation } = useCase();
  const { data, set, store } = useSection('match');
  const mayWrite = useMayWrite('match');
  const name = useToothLabel();
  const own = data.character?.find((c) => c.tooth === tooth);
  const put = (change: Partial<ToothCharacter>, group?: string) =>
    set(
      {
        ...data,
        character: [...(data.character ?? []).filter((c) => c.tooth !== tooth), { ...own, ...change, tooth }],
      },
      group,
    );
  return (
    <fieldset className="mb-3 flex flex-col gap-1.5 text-note" disabled={!mayWrite} aria-label="For the laboratory">
      <legend className="mb-1">For the laboratory, {name(tooth)}</legend>
      <label className="flex items-center justify-between gap-2">
        edge translucency
        <select
          className="field h-8 w-32 px-2"
          value={own?.translucency ?? ''}
          onChange={(e) => put({ translucency: (e.target.value || null) as EdgeTranslucency | null })}
        >
          <option value="">not told</option>
          {TRANSLUCENCIES.map((t) => (
            <option key={t}>{t}</option>
          ))}
        </select>
      </label>
      <label className="flex items-center justify-between gap-2">
        surface
        <select
          className="field h-8 w-32 px-2"
          value={own?.texture ?? ''}
          onChange={(e) => put({ texture: (e.target.value || null) as SurfaceTexture | null })}
        >
          <option value="">not told</option>
          {TEXTURES.map((t) => (
            <option key={t} value={t}>
              {t === 'smooth' ? t : `${t} texture`}
            </option>
          ))}
        </select>
      </label>
      <textarea
        aria-label={`Note on ${name(tooth)} for the laboratory`}
        placeholder="halo at the edge, craze lines, white spots …"
        className="field h-14 w-full py-1.5"
        maxLength={300}
        value={own?.note ?? ''}
        onChange={(e) => put({ note: e.target.value }, `note ${tooth}`)}
        onBlur={() => store.endGroup()}
      />
      <a className="how" href={`/api/cases/${detail.id}/plan.pdf?notation=${notation}&form=shades`} download>
        the laboratory’s sheet, PDF
      </a>
    </fieldset>
  );
}
