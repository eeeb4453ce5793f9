import type { SectionName } from '@radiant/contract';

/** An edit that has not reached the server: kept in the browser until it has. */
export interface Draft {
  readonly baseVersion: number;
  readonly data: unknown;
}

const PREFIX = 'radiant-draft';

/** One name a tab, which survives a reload: two tabs never write over each other's drafts. */
function tabId(): string {
  let id = sessionStorage.getItem('radiant-tab');
  if (!id) {
    id = crypto.randomUUID();
    sessionStorage.setItem('radiant-tab', id);
  }
  return id;
}

const keyOf = (caseId: string, section: SectionName, tab = tabId()) => `${PREFIX}:${caseId}:${section}:${tab}`;

/** While this tab lives it holds a lock in its name, so that others can tell its drafts from those left behind. */
export function holdTab(): void {
  void navigator.locks?.request(`radiant-tab:${tabId()}`, () => new Promise(() => undefined));
}

export function saveDraft(caseId: string, section: SectionName, draft: Draft): void {
  localStorage.setItem(keyOf(caseId, section), JSON.stringify(draft));
}

export function clearDraft(caseId: string, section: SectionName): void {
  localStorage.removeItem(keyOf(caseId, section));
}

/** This tab's draft, or else one that a closed tab left behind, taken over. */
export async function loadDraft(caseId: string, section: SectionName): Promise<Draft | undefined> {
  const own = localStorage.getItem(keyOf(caseId, section));
  if (own) return parse(own);
  const held = new Set((await globalThis.navigator?.locks?.query())?.held?.map((l) => l.name) ?? []);
  const start = `${PREFIX}:${caseId}:${section}:`;
  for (const key of Object.keys(localStorage)) {
    if (!key.startsWith(start) || held.has(`radiant-tab:${key.slice(start.length)}`)) continue;
    const draft = parse(localStorage.getItem(key) ?? '');
    localStorage.removeItem(key);
    if (!draft) continue;
    saveDraft(caseId, section, draft);
    return draft;
  }
  return undefined;
}

function parse(text: string): Draft | undefined {
  try {
    return JSON.parse(text) as Draft;
  } catch {
    return undefined;
  }
}
