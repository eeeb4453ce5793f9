import { type CaseFile, JAWS, plannedOn } from '@radiant/contract';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, sentenceOf } from '../../data/api.js';
import { useCase, useSection } from '../../data/case-context.js';
import { useMayWrite, useScansToPut } from '../../shell/ReadOnlyNote.js';
import { COMING, readEarly, useComing } from './own-scan/early.js';
import { ScanLine } from './ScanLine.js';

/** Puts a scan in; the contour keeps its numbers and stands on the new scan. */
export function ScanUpload({ quiet = false }: { quiet?: boolean }) {
  const { detail, refresh } = useCase();
  const shape = useSection('shape');
  const mayShape = useMayWrite('shape');
  const put = useScansToPut();
  const navigate = useNavigate();
  const scans = detail.files.filter((f) => f.kind === 'scan');
  const input = useRef<HTMLInputElement>(null);
  const [state, setState] = useState<{ busy: boolean; refusal?: string }>({ busy: false });
  // What was put in from a bench that was left meanwhile.
  const coming = useComing(detail.id);
  const busy = state.busy || (!!coming && !coming.kept && coming.refused === undefined);
  const refusal = state.refusal ?? (coming?.refused && `${coming.file.name}: ${coming.refused}`);
  // Once its bench is shown, what becomes of the file is said there.
  const here = useRef(false);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);
  const grounds = JAWS.map((jaw) => plannedOn(detail, jaw));
  const take = async (file: File | undefined) => {
    if (!file) return;
    setState({ busy: true });
    // It is read, and shown, while it is on its way.
    const early = readEarly(detail.id, file, () => here.current && navigate(`?scan=${COMING}`));
    try {
      const made = await api.upload<CaseFile>(
        `/cases/${detail.id}/files?kind=scan${put === 'wax-ups' ? '&state=mock-up' : ''}`,
        file,
      );
      await refresh();
      // A scan whose teeth are not told apart is worked on first; one of the lower jaw is for the bite.
      if (made.role === 'original') {
        early.keep(made);
        if (here.current) navigate(`?scan=${made.id}`);
      } else early.drop();
      if (mayShape && made.role === 'working' && made.jaw === 'upper') shape.set({ ...shape.data, scanId: made.id });
      setState({ busy: false });
    } catch (error) {
      const sentence = sentenceOf(error);
      if (here.current) early.drop();
      else early.refuse(sentence);
      setState({ busy: false, refusal: sentence });
    }
  };
  const rows = [...grounds.filter((f) => f !== undefined), ...scans.filter((f) => !grounds.includes(f))];
  return (
    <div className="text-note text-ink-2">
      {quiet && <h2 className="subtitle mb-1 text-ink">Scans</h2>}
      {rows.length > 0 && (
        <ul className="mb-2 divide-y divide-hair">
          {rows.map((f) => (
            <ScanLine key={f.id} file={f} planned={grounds.includes(f)}>
              {f.role === 'original' && (
                <Link className="how" to={`?scan=${f.id}`}>
                  {scans.some((s) => s.parentId === f.id) ? 'mark its teeth again' : 'mark its teeth'}
                </Link>
              )}
            </ScanLine>
          ))}
        </ul>
      )}
      {put && (
        <button type="button" className={quiet ? 'how' : 'btn'} disabled={busy} onClick={() => input.current?.click()}>
          {busy ? 'Reading …' : put === 'wax-ups' ? 'put a wax-up in' : quiet ? 'put another scan in' : 'Choose a scan'}
        </button>
      )}
      <input
        ref={input}
        type="file"
        accept=".stl,.ply,.obj"
        className="sr-only"
        tabIndex={-1}
        aria-label="Scan file"
        onChange={(e) => {
          void take(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
      {refusal && (
        <p role="alert" className="mt-1 text-stop">
          {refusal}
        </p>
      )}
    </div>
  );
}
