import {
  type ContourVersion,
  daysWorn,
  FIRST_SETTINGS,
  type PracticeSettingsState,
  WORN_EDGES,
} from '@radiant/contract';
import useSWR from 'swr';
import { api } from '../../data/api.js';

/** What speaks against recording an approval yet: worn for too short, or an edge that did not stand right. */
export function BeforeApproval({ version: { worn } }: { version: ContourVersion }) {
  const { data } = useSWR('/practice/settings', (path: string) => api.get<PracticeSettingsState>(path));
  const wanted = data?.data.wearDays ?? FIRST_SETTINGS.wearDays;
  const days = daysWorn(worn, new Date().toISOString().slice(0, 10));
  const said = [
    wanted > 0 && days === undefined
      ? `It was not worn as a mock-up; the practice asks for ${wanted} ${wanted === 1 ? 'day' : 'days'}.`
      : wanted > 0 && days !== undefined && days < wanted
        ? `It was worn for ${days} ${days === 1 ? 'day' : 'days'}; the practice asks for ${wanted}.`
        : undefined,
    worn?.edge && worn.edge !== 'right' ? `Its edge was ${WORN_EDGES[worn.edge]} when it was worn.` : undefined,
  ].filter(Boolean);
  if (said.length === 0) return null;
  return (
    <p className="finding mb-3 text-note" data-weight="watch" data-testid="before-approval">
      {said.join(' ')}
    </p>
  );
}
