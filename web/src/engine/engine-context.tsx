import { createContext, type ReactNode, useCallback, useContext, useEffect, useRef } from 'react';
import { CaseClient } from './case-client.js';

const EngineContext = createContext<(() => CaseClient) | undefined>(undefined);

/** Gives the stages of a case one engine. It begins when it is first asked for and ends when the case is left. */
export function EngineProvider({ children }: { children: ReactNode }) {
  const held = useRef<CaseClient | undefined>(undefined);
  useEffect(() => () => held.current?.end(), []);
  const client = useCallback(() => {
    if (!held.current || held.current.isLost) held.current = new CaseClient();
    return held.current;
  }, []);
  return <EngineContext.Provider value={client}>{children}</EngineContext.Provider>;
}

/** Gives the case's engine; a new one after the last has broken down. */
export function useEngine(): () => CaseClient {
  const client = useContext(EngineContext);
  if (!client) throw new Error('This belongs inside a case.');
  return client;
}
