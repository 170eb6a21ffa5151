import { ApiError, OfflineError } from "@/api/client";

/** What went wrong, with each finding of a document, and a way on. */
export function Failed({ error, title, onRetry }: { error: Error; title?: string; onRetry?: () => void }) {
  const findings = error instanceof ApiError ? (error.problem.findings ?? []) : [];
  const offline = error instanceof OfflineError;
  const heading =
    title ?? (error instanceof ApiError ? error.problem.title : offline ? "No connection" : "This did not work");
  return (
    <div role="alert" className="sheet m-4 max-w-[70ch]">
      <h2>{heading}</h2>
      {findings.length === 0 && <p className="mt-1">{error.message}</p>}
      {findings.length > 0 && (
        <ul className="mt-2 list-disc pl-5">
          {findings.map((f) => (
            <li key={f.path + f.found}>
              <code>{f.path || "the document"}</code>: found {f.found}; allowed is {f.allowed}.
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3 flex gap-2">
        {onRetry && (
          <button type="button" className="button" onClick={onRetry}>
            Try again
          </button>
        )}
        <a className="button" href="/">
          Back to the table
        </a>
      </div>
    </div>
  );
}
