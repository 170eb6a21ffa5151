import { describe, expect, it, vi } from "vitest";

vi.stubGlobal("window", { location: { origin: "http://metrosk.test" } });
const { ApiError, OfflineError } = await import("@/api/client");
const { failed } = await import("./failed");

const told = (status: number, more = {}) => new ApiError({ type: "x", title: "X", status, detail: "why", ...more });
const step = { key: "k" };

describe("a step that failed", () => {
  it("is tried again when the server or its database is away, and only then", () => {
    expect(failed(new OfflineError(), step)).toEqual({ type: "offline" });
    for (const status of [408, 429, 502, 503, 504]) expect(failed(told(status), step)).toEqual({ type: "offline" });
    expect(failed(told(500), step)).toEqual({ type: "refused", why: "why" });
  });

  it("is a question when somebody was quicker, and nothing when there was nothing to do", () => {
    const newest = { revision: 7 };
    expect(failed(told(409, { newest }), step)).toEqual({ type: "conflict", newest });
    expect(failed(told(409), step)).toEqual({ type: "nothing", key: "k", why: "why" });
  });

  it("is told with what was found", () => {
    const findings = [{ path: "patch.fit", found: "nothing", allowed: "a fit" }];
    expect(failed(told(422, { findings }), step)).toEqual({
      type: "refused",
      why: "patch.fit: found nothing; allowed is a fit",
    });
  });
});
