import { Refusal, type RefusalCode } from '@radiant/core';
import { type TransferHandler, transferHandlers } from 'comlink';

// Whoever imports this, worker or page, sends and receives refusals as what they are: code, sentence, what was
// received.

interface RefusalOnWire {
  readonly refusal: { readonly code: RefusalCode; readonly sentence: string; readonly received?: unknown };
}

const usual = transferHandlers.get('throw') as TransferHandler<{ value: unknown }, unknown>;

/** Only what can be cloned goes along. */
const plain = (v: unknown): unknown =>
  ['string', 'number', 'boolean'].includes(typeof v) || (Array.isArray(v) && v.every((x) => plain(x) !== undefined))
    ? v
    : undefined;

transferHandlers.set('throw', {
  canHandle: usual.canHandle,
  serialize(thrown) {
    const { value } = thrown as { value: unknown };
    if (!(value instanceof Refusal)) return usual.serialize(thrown as { value: unknown });
    const received = plain(value.received);
    return [
      {
        refusal: { code: value.code, sentence: value.message, ...(received !== undefined && { received }) },
      } satisfies RefusalOnWire,
      [],
    ];
  },
  deserialize(sent) {
    if (typeof sent === 'object' && sent !== null && 'refusal' in sent) {
      const { code, sentence, received } = (sent as RefusalOnWire).refusal;
      throw new Refusal(code, sentence, received);
    }
    return usual.deserialize(sent);
  },
});
