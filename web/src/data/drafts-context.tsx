import { createContext, useContext } from 'react';
import type { Drafts } from './drafts.js';

/** The drafts of the person who is signed in; none where the browser can't keep any. */
export const DraftsContext = createContext<Drafts | undefined>(undefined);
export const useDrafts = (): Drafts | undefined => useContext(DraftsContext);
