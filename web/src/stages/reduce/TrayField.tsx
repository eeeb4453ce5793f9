import { trayInput } from '@radiant/contract';
import { burId, FIRST_TRAY, type Tray } from '@radiant/core';
import { Link } from 'react-router';
import { useSection } from '../../data/case-context.js';
import { usePracticeSettings } from '../../data/use-practice-settings.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';

const said = ({ name, burs }: Tray) => JSON.stringify([name, burs.map((b) => [burId(b), b.note || ''])]);
const same = (a: Tray, b: Tray) => said(a) === said(b);

/** Which of the house's trays the case is cut with. The case keeps the burs as they were when they were taken. */
export function TrayField() {
  const { data, set } = useSection('reduce');
  const mayWrite = useMayWrite('reduce');
  const { shown: house } = usePracticeSettings();
  const trays: readonly Tray[] = house?.trays ?? [];
  const own: Tray = data.tray ?? FIRST_TRAY;
  const now = trays.find((t) => t.name === own.name);
  const take = (tray: Tray | undefined) => tray && set({ ...data, tray: trayInput(tray) });
  return (
    <div className="mb-3">
      <label className="block text-note text-ink-2">
        Tray
        <select
          aria-label="Tray"
          className="field mt-0.5 h-9 w-full px-2 text-body text-ink"
          value={own.name}
          disabled={!mayWrite}
          onChange={(e) => take(trays.find((t) => t.name === e.target.value))}
        >
          {!now && <option value={own.name}>{own.name}</option>}
          {trays.map((t) => (
            <option key={t.name} value={t.name}>
              {t.name}
            </option>
          ))}
        </select>
      </label>
      <p className="mt-1 text-tiny text-ink-2">
        {own.burs.length} burs. {house && !now && 'The house has no tray of this name any more. '}
        {now && !same(now, own) && (
          <>
            The house has changed it since.{' '}
            {mayWrite && (
              <button type="button" className="how" onClick={() => take(now)}>
                take it as it is now
              </button>
            )}{' '}
          </>
        )}
        <Link className="how" to="/trays">
          the house’s trays
        </Link>
      </p>
    </div>
  );
}
