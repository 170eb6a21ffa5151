import { beforeEach, describe, expect, it, vi } from "vitest";
import { dropDraft, findDraft, keepDraft } from "./drafts";
import type { Draft } from "./planState";

/** A browser's storage, as far as it is used. */
function storage() {
  const kept = new Map<string, string>();
  const known = {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => {
      kept.set(k, v);
      (known as Record<string, unknown>)[k] = v;
    },
    removeItem: (k: string) => {
      kept.delete(k);
      delete (known as Record<string, unknown>)[k];
    },
  };
  return known;
}

const draft = (reason: string): Draft => ({
  base: 3,
  queue: [{ kind: "write", plan: { format: "metrosk-plan/1" } as never, reason, key: reason, sent: true }],
});

/** Another tab: its own session, the same storage. */
const openTab = (name: string) => vi.stubGlobal("sessionStorage", { getItem: () => name, setItem: () => {} });

describe("steps kept in the browser", () => {
  beforeEach(() => {
    vi.stubGlobal("localStorage", storage());
    vi.stubGlobal("navigator", { locks: { query: async () => ({ held: [{ name: "metrosk-open-page-alive" }] }) } });
    openTab("one");
  });

  it("are found again by the tab that kept them", async () => {
    keepDraft("page", draft("mine"));
    expect((await findDraft("page"))?.queue[0]?.key).toBe("mine");
    expect(await findDraft("another page")).toBeUndefined();
    dropDraft("page");
    expect(await findDraft("page")).toBeUndefined();
  });

  it("are taken over from a tab that is gone, once", async () => {
    openTab("gone");
    keepDraft("page", draft("left behind"));
    openTab("one");
    expect((await findDraft("page"))?.queue[0]?.key).toBe("left behind");
    openTab("two");
    // Tab one is open in this test's browser only if it holds the page; here it is gone as well.
    expect((await findDraft("page"))?.queue[0]?.key).toBe("left behind");
  });

  it("are left to a tab that is still open", async () => {
    openTab("alive");
    keepDraft("page", draft("hers"));
    openTab("one");
    expect(await findDraft("page")).toBeUndefined();
  });

  it("are nothing when they can't be read", async () => {
    localStorage.setItem("metrosk-draft-page-one", "{ not json");
    expect(await findDraft("page")).toBeUndefined();
    localStorage.setItem("metrosk-draft-page-one", JSON.stringify({ base: 1, queue: [] }));
    expect(await findDraft("page")).toBeUndefined();
  });
});
