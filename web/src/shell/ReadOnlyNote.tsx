import { mayWrite, mayWriteField, ownFields, type SectionName, sectionOf } from '@radiant/contract';
import { useCase, useSection } from '../data/case-context.js';

/**
 * Whether the signed-in person may change the section as it is shown: not while an earlier state is looked at, nor in
 * a case that was put away.
 * @param field one field of it, which others may write too
 */
export function useMayWrite(section: SectionName, field?: string): boolean {
  const { looked } = useSection(section);
  const { who, detail } = useCase();
  const may = field === undefined ? mayWrite(who.role, section) : mayWriteField(who.role, section, field);
  return may && !looked && !detail.putAway;
}

/**
 * Whether the signed-in person may put scans in: the practice's own people any, a technician wax-ups; none in a case
 * that was put away.
 */
export function useScansToPut(): 'any' | 'wax-ups' | undefined {
  const { who, detail } = useCase();
  if (detail.putAway) return undefined;
  return mayWrite(who.role, 'meet') ? 'any' : who.role === 'technician' ? 'wax-ups' : undefined;
}

/** Says why nothing can be changed here, to those who may only read. */
export function ReadOnlyNote({ section }: { section: SectionName }) {
  const { who, detail } = useCase();
  if (detail.putAway) return null;
  if (mayWrite(who.role, section)) return null;
  const own = ownFields(who.role, section).map((f) => sectionOf(section).labels[f] ?? f);
  return (
    <p className="mb-4 rounded-lg bg-plum-soft px-3 py-2 text-note">
      {who.role === 'technician'
        ? 'You read and comment here, and put wax-ups in as scans; the dentist decides.'
        : own.length > 0
          ? `You write ${own.join(', ')} here; the rest the dentist decides.`
          : 'The dentist decides here; you may read it.'}
    </p>
  );
}

/** The server's refusal of an edit, at the place where it was made. */
export function Refused({ sentence }: { sentence: string | undefined }) {
  return sentence ? (
    <p role="alert" className="mb-4 rounded-lg border border-stop px-3 py-2 text-note text-stop">
      Not accepted: {sentence} Your edit is kept here.
    </p>
  ) : null;
}
