import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { keepStream, onTold, type Told } from "./stream";

/** A stream as the browser has it, with what it was opened with. */
class FakeSource {
  static CLOSED = 2;
  static opened: FakeSource[] = [];
  readyState = 1;
  onerror: (() => void) | undefined;
  private readonly heard = new Map<string, (e: unknown) => void>();
  constructor(readonly address: string) {
    FakeSource.opened.push(this);
  }
  addEventListener(name: string, listener: (e: unknown) => void) {
    this.heard.set(name, listener);
  }
  close() {
    this.readyState = FakeSource.CLOSED;
  }
  say(name: string, lastEventId = "", data: unknown = {}) {
    this.heard.get(name)?.({ lastEventId, data: JSON.stringify(data) });
  }
  refuse() {
    this.readyState = FakeSource.CLOSED;
    this.onerror?.();
  }
}

/** Locks as the browser has them: one holder of a name at a time, the others wait. */
const queues = new Map<string, (() => unknown)[]>();
const locks = {
  request(name: string, { signal }: { signal: AbortSignal }, hold: () => Promise<void>) {
    const queue: (() => unknown)[] = queues.get(name) ?? [];
    queues.set(name, queue);
    const run = async () => {
      if (!signal.aborted) await hold();
      queue.shift();
      queue[0]?.();
    };
    queue.push(run);
    if (queue.length === 1) run();
    return Promise.resolve();
  },
};

beforeEach(() => {
  FakeSource.opened = [];
  queues.clear();
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
  vi.stubGlobal("EventSource", FakeSource);
  vi.stubGlobal("navigator", { locks });
});

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const event = { what: "page", thing: "p", revision: 2, author: "Wren" };

describe("the team's event stream", () => {
  it("is opened once for two tabs, and taken over from the last event when the first goes", async () => {
    const told: Told[] = [];
    const deaf = onTold((t) => told.push(t));
    const [first, second] = [keepStream("club"), keepStream("club")];
    expect(FakeSource.opened.map((s) => s.address)).toEqual(["/api/events?team=club"]);
    FakeSource.opened[0]?.say("listening");
    FakeSource.opened[0]?.say("changed", "7", event);
    // The tab that listens hears at once, the other by way of the channel.
    await vi.waitFor(() => expect(told.length).toBe(2));
    expect(told[0]).toEqual({ kind: "changed", id: 7, event });
    first();
    await vi.waitFor(() => expect(FakeSource.opened.length).toBe(2));
    expect(FakeSource.opened[1]?.address).toBe("/api/events?team=club&after=7");
    second();
    deaf();
  });

  it("is opened again after a refusal, later each time, and then says that something may have been missed", async () => {
    const told: Told[] = [];
    const deaf = onTold((t) => told.push(t));
    const end = keepStream("club");
    FakeSource.opened[0]?.refuse();
    vi.advanceTimersByTime(999);
    expect(FakeSource.opened.length).toBe(1);
    vi.advanceTimersByTime(1);
    FakeSource.opened[1]?.refuse();
    vi.advanceTimersByTime(1_999);
    expect(FakeSource.opened.length).toBe(2);
    vi.advanceTimersByTime(1);
    FakeSource.opened[2]?.say("listening");
    expect(told).toEqual([{ kind: "again" }]);
    end();
    FakeSource.opened[2]?.refuse();
    vi.advanceTimersByTime(60_000);
    expect(FakeSource.opened.length).toBe(3);
    deaf();
  });
});
