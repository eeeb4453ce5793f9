/** Closer than this two numbers of one decimal are the same. */
const SAME_MM = 0.04;

/** What the program proposes for one number, why, and a button that takes it while another is set. */
export function Advised({
  title,
  because,
  change,
  mayTake,
  testId,
  onTake,
}: {
  title: string;
  because: readonly string[];
  /** Proposed less what is set, mm. */
  change: number;
  mayTake: boolean;
  testId?: string;
  onTake: () => void;
}) {
  return (
    <div className="working mb-3" data-testid={testId}>
      <div className="flex items-baseline justify-between gap-2">
        <b className="font-semibold">{title}</b>
        {mayTake && Math.abs(change) > SAME_MM && (
          <button type="button" className="how" onClick={onTake}>
            take it
          </button>
        )}
      </div>
      <span className="text-ink-2">{because.join('; ')}.</span>
    </div>
  );
}
