import { type CaseFile, planInputs } from '@radiant/contract';
import type { Jaw } from '@radiant/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, sentenceOf } from '../../../data/api.js';
import { useCase, useSection } from '../../../data/case-context.js';
import { useMayWrite } from '../../../shell/ReadOnlyNote.js';
import type { OwnScanWork } from './use-own-scan.js';
import type { Ways } from './use-ways.js';

/** How the name of a working copy ends, for people. */
const PICKED_OUT = ', teeth picked out.ply';

/** Whether a plan stands on a scan like this one: of the mouth before anything was done. */
export const isGround = (file: CaseFile): boolean => (file.state ?? 'before') === 'before';

/** Hands the picked teeth over to the case: as its scan of the jaw, or as the planned contour. */
export function useHandOver(file: CaseFile, scan: OwnScanWork, jaw: Jaw, { same, urlOf }: Ways) {
  const { detail, refresh } = useCase();
  const shape = useSection('shape');
  const navigate = useNavigate();
  const mayShape = useMayWrite('shape');
  const [saving, setSaving] = useState<string>();
  const leave = () => navigate('.', { replace: true });
  const becomePlan = async () => {
    if (!same) return;
    setSaving('Setting the crowns to it …');
    const done = await scan.asPlan(urlOf(same.id));
    if (!done) return setSaving(undefined);
    const made = planInputs(done.plan);
    const kept = shape.data.teeth.filter((t) => !made.some((m) => m.tooth === t.tooth));
    shape.set({ ...shape.data, ...(jaw === 'upper' && { scanId: same.id }), teeth: [...kept, ...made] });
    await scan.handedOver();
    leave();
  };
  const use = async () => {
    setSaving('Closing the teeth …');
    const done = await scan.finish();
    if (!done) return setSaving(undefined);
    try {
      setSaving('Saving …');
      const bare = file.name.replace(/\.[a-z]+$/i, '');
      const said = new URLSearchParams({ kind: 'scan', parentId: file.id, frame: done.frame.join() });
      const made = await api.upload<CaseFile>(
        `/cases/${detail.id}/files?${said}`,
        new File([done.bytes as BlobPart], `${bare}${PICKED_OUT}`),
      );
      await refresh();
      await scan.handedOver();
      if (mayShape && made.jaw === 'upper' && isGround(file)) shape.set({ ...shape.data, scanId: made.id });
      leave();
    } catch (error) {
      setSaving(sentenceOf(error));
    }
  };
  return { saving, use, becomePlan, leave };
}
