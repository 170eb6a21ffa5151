import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { allDrafts, dropDraft, findDraft, keepDraft } from "./drafts";

/** Another tab: its own session, the same storage. */
const openTab = (name: string) => vi.stubGlobal("sessionStorage", { getItem: () => name, setItem: () => {} });

let page = 0;
const fresh = () => `page ${page++}`;

describe("what waits in the browser", () => {
  beforeEach(() => {
    vi.stubGlobal("navigator", { locks: { query: async () => ({ held: [{ name: "metrosk-open-shared-alive" }] }) } });
    openTab("one");
  });

  it("is found again by the tab that kept it, and by nobody else who signs in", async () => {
    const thing = fresh();
    expect(await keepDraft("wren", thing, "Kites", { steps: 1 })).toBe(true);
    expect((await findDraft("wren", thing))?.draft).toEqual({ steps: 1 });
    expect(await findDraft("teal", thing)).toBeUndefined();
    expect(await findDraft("wren", fresh())).toBeUndefined();
    expect(await allDrafts("wren")).toMatchObject([{ thing, name: "Kites" }]);
    expect(await allDrafts("teal")).toEqual([]);
    await dropDraft("wren", thing);
    expect(await findDraft("wren", thing)).toBeUndefined();
  });

  it("is taken over from a tab that is gone, once", async () => {
    const thing = fresh();
    openTab("gone");
    await keepDraft("wren", thing, "Kites", "left behind");
    openTab("one");
    expect((await findDraft("wren", thing))?.draft).toBe("left behind");
    await dropDraft("wren", thing);
    openTab("two");
    expect(await findDraft("wren", thing)).toBeUndefined();
  });

  it("is left to a tab that is still open", async () => {
    openTab("alive");
    await keepDraft("wren", "shared", "Kites", "hers");
    openTab("one");
    expect(await findDraft("wren", "shared")).toBeUndefined();
    openTab("alive");
    await dropDraft("wren", "shared");
  });

  it("says when there is no room", async () => {
    const full = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    expect(await keepDraft("wren", fresh(), "Kites", "much")).toBe(false);
    full.mockRestore();
  });

  it("keeps once what plans share", async () => {
    const thing = fresh();
    const sketch = { blocks: ["p1"] };
    await keepDraft("wren", thing, "Kites", {
      queue: [
        { sketch, n: 1 },
        { sketch, n: 2 },
      ],
    });
    const found = (await findDraft<{ queue: { sketch: object }[] }>("wren", thing))?.draft;
    expect(found?.queue[0]?.sketch).toBe(found?.queue[1]?.sketch);
    await dropDraft("wren", thing);
  });
});
