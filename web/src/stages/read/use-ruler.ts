import type { FoundRuler } from '@radiant/core';
import { useEffect, useState } from 'react';
import { useEdges } from '../../engine/use-edges.js';

/** A ruler that is seen in the picture; nothing while nobody asks, while it is looked for, and where none is seen. */
export function useRuler(url: string | undefined): FoundRuler | undefined {
  const { ruler } = useEdges(url);
  const [found, setFound] = useState<{ readonly url: string; readonly ruler: FoundRuler | undefined }>();
  useEffect(() => {
    if (!url) return;
    let off = false;
    void ruler().then((seen) => {
      if (!off) setFound({ url, ruler: seen });
    });
    return () => {
      off = true;
    };
  }, [url, ruler]);
  return found && found.url === url ? found.ruler : undefined;
}
