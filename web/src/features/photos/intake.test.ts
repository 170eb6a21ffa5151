import "fake-indexeddb/auto";
import { describe, expect, it, vi } from "vitest";
import type { PictureView } from "@/api/client";

// The client asks where it is served from, and which team the tab is in.
vi.stubGlobal("window", { location: { origin: "http://here" }, sessionStorage: undefined });
vi.stubGlobal("sessionStorage", { getItem: () => null, setItem: () => {} });
const { ApiError, OfflineError } = await import("@/api/client");
const { Intake } = await import("./intake");

const file = (name: string) => new File(["x"], name);
const picture = (name: string) => ({ id: `id-${name}`, name }) as PictureView;

/** A way of sending whose answers the test gives. */
function answered() {
  const open: { name: string; key: string; done: (p: PictureView) => void; fail: (e: unknown) => void }[] = [];
  const send = vi.fn(
    (_: Blob, name: string, key: string) =>
      new Promise<PictureView>((done, fail) => {
        open.push({ name, key, done, fail });
      }),
  );
  return { open, send: send as never };
}

const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

describe("pictures on their way in", () => {
  it("go two at a time, each handed on as it arrives", async () => {
    const { open, send } = answered();
    const intake = new Intake("page-a", send);
    const arrived: string[] = [];
    intake.onArrived = (p) => arrived.push(p.name);
    intake.add([file("a"), file("b"), file("c")]);
    expect(open.map((o) => o.name)).toEqual(["a", "b"]);
    open[0]?.done(picture("a"));
    await settled();
    expect(open.map((o) => o.name)).toEqual(["a", "b", "c"]);
    expect(arrived).toEqual(["a"]);
    expect(intake.shown().map((c) => c.name)).toEqual(["b", "c"]);
  });

  it("one that is refused says why, and the others go on", async () => {
    const { open, send } = answered();
    const intake = new Intake("page-b", send);
    intake.add([file("text.txt"), file("b"), file("c")]);
    const findings = [{ path: "", found: "no picture", allowed: "a picture: PNG, JPEG or WebP" }];
    open[0]?.fail(new ApiError({ type: "", title: "", status: 422, detail: "", findings } as never));
    await settled();
    expect(intake.shown()[0]).toMatchObject({
      state: "refused",
      why: "no picture; allowed is a picture: PNG, JPEG or WebP",
    });
    expect(open.map((o) => o.name)).toEqual(["text.txt", "b", "c"]);
    intake.drop(intake.shown()[0]?.key ?? "");
    expect(intake.shown().map((c) => c.name)).toEqual(["b", "c"]);
  });

  it("one without a server is sent again under the same key", async () => {
    vi.useFakeTimers();
    try {
      const { open, send } = answered();
      const intake = new Intake("page-c", send);
      intake.add([file("a")]);
      open[0]?.fail(new OfflineError());
      await vi.advanceTimersByTimeAsync(10);
      expect(intake.shown()[0]?.state).toBe("offline");
      await vi.advanceTimersByTimeAsync(5000);
      expect(open.map((o) => o.key)).toEqual([open[0]?.key, open[0]?.key]);
    } finally {
      vi.useRealTimers();
    }
  });

  it("what a reload left is taken up again", async () => {
    const before = answered();
    const first = new Intake("page-d", before.send);
    first.add([file("a"), file("b")]);
    await settled();
    first.stop();
    const after = answered();
    const next = new Intake("page-d", after.send);
    await next.resume();
    expect(after.open.map((o) => [o.name, o.key])).toEqual(before.open.map((o) => [o.name, o.key]));
    const elsewhere = new Intake("page-e", answered().send);
    await elsewhere.resume();
    expect(elsewhere.shown()).toEqual([]);
  });
});
