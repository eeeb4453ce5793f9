/** What is shown while something loads. */
export function Waiting({ what }: { what: string }) {
  return (
    <p role="status" className="flex h-full items-center justify-center text-ink-2">
      Fetching {what} …
    </p>
  );
}

/** What is shown when something can't be had: the sentence and a way on. */
export function Trouble({ sentence, retry }: { sentence: string; retry?: () => void }) {
  return (
    <div role="alert" className="flex h-full flex-col items-center justify-center gap-4 text-ink-2">
      <p>{sentence}</p>
      {retry && (
        <button type="button" className="btn btn-ghost" onClick={retry}>
          Try again
        </button>
      )}
    </div>
  );
}
