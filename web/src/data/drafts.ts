import type { SectionName } from '@radiant/contract';
import { createStore, del, get, keys, set } from 'idb-keyval';

/** An edit that has not reached the server: kept in the browser until it has. */
export interface Draft {
  readonly baseVersion: number;
  /** What the edit began from, so that it can be put together with another's. */
  readonly base: unknown;
  readonly data: unknown;
}

/** What is kept: nobody but the person it belongs to can read it, and only while they are signed in. */
interface Sealed {
  readonly iv: Uint8Array<ArrayBuffer>;
  readonly bytes: ArrayBuffer;
}

const PREFIX = 'draft';
const WORK = 'work';
const TAB = 'radiant-tab';
/** A page that is being reloaded holds its tab's name for a moment longer, ms. */
const RELOAD_MS = 300;

const store = createStore('radiant-arch', 'drafts');
const part = (s: string) => s.replaceAll(':', '');

/**
 * One name a tab, which survives a reload: two tabs never write over each other's drafts. A duplicated tab is given its
 * twin's name by the browser; it finds the name held and takes another.
 */
let tab: Promise<string> | undefined;
function tabName(): Promise<string> {
  tab ??= (async () => {
    const before = sessionStorage.getItem(TAB);
    if (
      before &&
      ((await holds(before)) || (await new Promise((r) => setTimeout(r, RELOAD_MS)).then(() => holds(before))))
    )
      return before;
    const own = crypto.randomUUID();
    sessionStorage.setItem(TAB, own);
    await holds(own);
    return own;
  })();
  return tab;
}

/** While this tab lives it holds a lock in its name, so that others can tell its drafts from those left behind. */
function holds(name: string): Promise<boolean> {
  const { locks } = globalThis.navigator ?? {};
  if (!locks) return Promise.resolve(true);
  return new Promise((done) => {
    void locks.request(`${TAB}:${name}`, { ifAvailable: true }, (lock) => {
      done(lock !== null);
      return lock ? new Promise(() => undefined) : undefined;
    });
  });
}

/** The drafts of one person in this browser, sealed with a key that the server gives to nobody else. */
export class Drafts {
  private constructor(
    private readonly personId: string,
    private readonly key: CryptoKey,
  ) {}

  /** @param secret base64 of 32 bytes */
  static async open(personId: string, secret: string): Promise<Drafts> {
    const raw = Uint8Array.from(atob(secret), (c) => c.charCodeAt(0));
    return new Drafts(personId, await crypto.subtle.importKey('raw', raw, 'AES-GCM', false, ['encrypt', 'decrypt']));
  }

  private async keyOf(caseId: string, section: SectionName): Promise<string> {
    return [PREFIX, this.personId, caseId, section, await tabName()].map(part).join(':');
  }

  /** @throws when the browser has no room or no store: the caller must say so */
  async save(caseId: string, section: SectionName, draft: Draft): Promise<void> {
    await set(await this.keyOf(caseId, section), await this.sealed(draft), store);
  }

  async clear(caseId: string, section: SectionName): Promise<void> {
    await del(await this.keyOf(caseId, section), store);
  }

  /** This tab's draft, or else one that a closed tab of the same person left behind, taken over. */
  async load(caseId: string, section: SectionName): Promise<Draft | undefined> {
    const own = await this.keyOf(caseId, section);
    const kept = await get<Sealed>(own, store);
    if (kept) return this.opened(kept);
    const held = new Set((await globalThis.navigator?.locks?.query())?.held?.map((l) => l.name) ?? []);
    const start = own.slice(0, own.lastIndexOf(':') + 1);
    for (const key of (await keys<string>(store)).filter((k) => k.startsWith(start))) {
      if (held.has(`${TAB}:${key.slice(start.length)}`)) continue;
      const left = await get<Sealed>(key, store);
      const draft = left && (await this.opened(left));
      if (draft) await this.save(caseId, section, draft);
      await del(key, store);
      if (draft) return draft;
    }
    return undefined;
  }

  private async opened<T = Draft>({ iv, bytes }: Sealed): Promise<T | undefined> {
    try {
      return JSON.parse(
        new TextDecoder().decode(await crypto.subtle.decrypt({ name: 'AES-GCM', iv }, this.key, bytes)),
      ) as T;
    } catch {
      return undefined;
    }
  }

  /** Work of this person on a file of a case that no section holds yet. @throws as `save` */
  async keepWork(caseId: string, fileId: string, work: unknown): Promise<void> {
    await set(this.workKey(caseId, fileId), await this.sealed(work), store);
  }

  async work(caseId: string, fileId: string): Promise<unknown> {
    const kept = await get<Sealed>(this.workKey(caseId, fileId), store);
    return kept && this.opened(kept);
  }

  async dropWork(caseId: string, fileId: string): Promise<void> {
    await del(this.workKey(caseId, fileId), store);
  }

  private workKey(caseId: string, fileId: string): string {
    return [WORK, this.personId, caseId, fileId].map(part).join(':');
  }

  private async sealed(value: unknown): Promise<Sealed> {
    const iv = crypto.getRandomValues(new Uint8Array(12));
    const text = new TextEncoder().encode(JSON.stringify(value));
    return { iv, bytes: await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, this.key, text) };
  }

  /** How many edits of this person wait in this browser. */
  async count(): Promise<number> {
    return (await this.own()).length;
  }

  /** Removes every edit and all work of this person from this browser. */
  async removeAll(): Promise<void> {
    for (const key of [...(await this.own()), ...(await this.own(WORK))]) await del(key, store);
  }

  private async own(prefix = PREFIX): Promise<string[]> {
    const start = `${[prefix, this.personId].map(part).join(':')}:`;
    return (await keys<string>(store)).filter((k) => k.startsWith(start));
  }
}
