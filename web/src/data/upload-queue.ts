import { type CaseState, type Delivered, PHOTO_MOST_BYTES, PHOTO_TOO_LARGE, type PhotoView } from '@radiant/contract';
import { AwayError, sentenceOf } from './api.js';
import { sendFile } from './upload.js';

export type ItemState = 'waiting' | 'sending' | 'done' | 'already' | 'refused' | 'cut';

/** One file on its way. */
export interface QueueItem {
  readonly key: number;
  readonly name: string;
  readonly state: ItemState;
  /** How much of it has left, 0 to 1. */
  readonly share: number;
  /** Why it was refused, or what is missing. */
  readonly sentence?: string;
}

/** Whether any of them is on its way or waits for it. */
export const isMoving = (items: readonly QueueItem[]): boolean =>
  items.some((i) => i.state === 'waiting' || i.state === 'sending');

/** How many of them the server holds now. */
export const arrivedOf = (items: readonly QueueItem[]): number =>
  items.filter((i) => i.state === 'done' || i.state === 'already').length;

/** What is said of files as they are dropped. */
export interface Said {
  readonly view?: PhotoView;
  readonly state?: CaseState;
}

const AT_ONCE = 2;

type Send = (path: string, file: File, told: (share: number) => void, signal: AbortSignal) => Promise<Delivered>;

/**
 * Many files sent two at a time, each with its own fate: one that is refused or cut off stays in the list with its
 * sentence and holds up none of the others; a cut one can be sent again.
 */
export class UploadQueue {
  private items: QueueItem[] = [];
  private files = new Map<number, { file: File; path: string }>();
  private listeners = new Set<() => void>();
  private stop = new AbortController();
  private next = 1;

  constructor(
    private readonly caseId: string,
    private readonly delivered: () => void,
    private readonly send: Send = sendFile,
  ) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): readonly QueueItem[] => this.items;

  add(files: readonly File[], said: Said = {}): void {
    const query = new URLSearchParams({
      kind: 'photo',
      ...(said.view && { view: said.view }),
      ...(said.state && { state: said.state }),
    });
    for (const file of files) {
      const key = this.next++;
      const tooLarge = file.size > PHOTO_MOST_BYTES;
      this.files.set(key, { file, path: `/cases/${this.caseId}/files?${query}` });
      this.items = [
        ...this.items,
        {
          key,
          name: file.name,
          share: 0,
          state: tooLarge ? 'refused' : 'waiting',
          ...(tooLarge && { sentence: PHOTO_TOO_LARGE }),
        },
      ];
    }
    this.tell();
    this.pump();
  }

  /** Sends a file again whose connection was cut. */
  again(key: number): void {
    this.change(key, { state: 'waiting', share: 0, sentence: undefined });
    this.pump();
  }

  /** Takes what has ended off the list. */
  clear(): void {
    this.items = this.items.filter((i) => isMoving([i]));
    this.tell();
  }

  /** Calls off what is still on its way; what has arrived stays. */
  callOff(): void {
    this.stop.abort();
    this.stop = new AbortController();
    this.items = this.items.map((i) =>
      i.state === 'waiting' ? { ...i, state: 'cut', sentence: 'Called off; nothing of it was kept.' } : i,
    );
    this.tell();
  }

  private pump(): void {
    const busy = this.items.filter((i) => i.state === 'sending').length;
    for (const item of this.items.filter((i) => i.state === 'waiting').slice(0, AT_ONCE - busy))
      void this.run(item.key);
  }

  private async run(key: number): Promise<void> {
    const own = this.files.get(key);
    if (!own) return;
    this.change(key, { state: 'sending' });
    try {
      const { already } = await this.send(own.path, own.file, (share) => this.change(key, { share }), this.stop.signal);
      this.change(key, {
        state: already ? 'already' : 'done',
        share: 1,
        ...(already && { sentence: 'The case holds this picture already.' }),
      });
      this.files.delete(key);
      this.delivered();
    } catch (error) {
      if (error instanceof DOMException)
        this.change(key, { state: 'cut', sentence: 'Called off; nothing of it was kept.' });
      else if (error instanceof AwayError)
        this.change(key, { state: 'cut', sentence: 'The connection was cut; nothing of it was kept. Send it again.' });
      else this.change(key, { state: 'refused', sentence: sentenceOf(error) });
    }
    this.pump();
  }

  private change(key: number, to: { state?: ItemState; share?: number; sentence?: string | undefined }): void {
    this.items = this.items.map((i) => {
      if (i.key !== key) return i;
      const { sentence, ...rest } = { ...i, ...to };
      return sentence === undefined ? rest : { ...rest, sentence };
    });
    this.tell();
  }

  private tell(): void {
    for (const l of this.listeners) l();
  }
}
