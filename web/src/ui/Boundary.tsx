import type { ReactNode } from 'react';
import { ErrorBoundary } from 'react-error-boundary';

/** Keeps a fault in one part from taking the rest with it: the part says so, and can be tried again. */
export function Boundary({ what, children }: { what: string; children: ReactNode }) {
  return (
    <ErrorBoundary
      fallbackRender={({ resetErrorBoundary }) => (
        <div role="alert" className="rounded-xl border border-hair bg-leaf p-5">
          <p className="font-semibold">{what} can’t be shown.</p>
          <p className="text-ink-2">Something in it is not as it should be. Nothing of it is lost.</p>
          <button type="button" className="how" onClick={resetErrorBoundary}>
            try again
          </button>
        </div>
      )}
    >
      {children}
    </ErrorBoundary>
  );
}
