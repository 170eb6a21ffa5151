import type { CallDoc } from "@/api/client";

/** Whom a call wants named. */
export function Credits({ call }: { call: CallDoc }) {
  if (!call.credits?.length) return null;
  return (
    <section aria-labelledby="credits">
      <h2 id="credits">Whom to name</h2>
      <dl>
        {call.credits.map((c) => (
          <div key={`${c.what} ${c.name}`} className="flex justify-between border-hairline border-t py-1">
            <dt className="text-second">{c.what}</dt>
            <dd className="font-semibold">{c.name}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

/** Where a call says to look. */
export function Links({ call }: { call: CallDoc }) {
  if (!call.links?.length) return null;
  return (
    <section aria-labelledby="links">
      <h2 id="links">Links</h2>
      <ul>
        {call.links.map((l) => (
          <li key={l.url}>
            <a className="link" href={l.url} rel="noreferrer noopener" target="_blank">
              {l.name}
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}
