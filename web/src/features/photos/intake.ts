// Pictures on their way in: a queue a page, kept in the browser until each has arrived, so that a reload or a lost connection loses none.

import { createStore, del, entries, set } from "idb-keyval";
import { ApiError, newKey, type PictureView } from "@/api/client";
import { sendPhoto } from "@/api/upload";

const store = createStore("metrosk-intake", "pictures");
/** So many are sent at once. */
const AT_ONCE = 2;
/** One that found no server is tried again after this, in milliseconds. */
const RETRY = 3000;

type Kept = { file: Blob; name: string; at: number };
type Key = [page: string, key: string];

export type Coming = {
  key: string;
  name: string;
  /** `waiting` for its turn, being `sent`, without a server (`offline`), or `refused`. */
  state: "waiting" | "sent" | "offline" | "refused";
  /** The share that has gone. */
  share: number;
  /** Why it was refused. */
  why?: string;
};

type Arrived = (picture: PictureView) => void;

/** One page's queue. */
export class Intake {
  private all: Coming[] = [];
  private files = new Map<string, Blob>();
  private sending = new Map<string, AbortController>();
  private listeners = new Set<() => void>();
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    readonly page: string,
    private readonly send: typeof sendPhoto = sendPhoto,
  ) {}

  /** Whoever shows the page: hears of pictures that have arrived. */
  onArrived: Arrived | undefined;

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  shown = (): readonly Coming[] => this.all;

  /** Takes up what a reload left. */
  async resume(): Promise<void> {
    const kept = await entries<Key, Kept>(store).catch(() => []);
    const own = kept.filter(([[page, key]]) => page === this.page && !this.files.has(key));
    own.sort(([, a], [, b]) => a.at - b.at);
    for (const [[, key], { file, name }] of own) this.put(key, file, name);
    this.go();
  }

  add(files: readonly File[]): void {
    for (const [n, file] of files.entries()) {
      const key = newKey();
      this.put(key, file, file.name);
      const kept: Kept = { file, name: file.name, at: Date.now() + n / 1000 };
      // Without room it is sent all the same, but a reload would lose it.
      set([this.page, key] satisfies Key, kept, store).catch(() => {});
    }
    this.go();
  }

  /** Stops one, or takes a refused one off the list. */
  drop(key: string): void {
    this.sending.get(key)?.abort();
    this.gone(key);
  }

  stop(): void {
    clearTimeout(this.timer);
    for (const controller of this.sending.values()) controller.abort();
    this.sending.clear();
  }

  private put(key: string, file: Blob, name: string): void {
    this.files.set(key, file);
    this.change([...this.all, { key, name, state: "waiting", share: 0 }]);
  }

  private gone(key: string): void {
    this.files.delete(key);
    del([this.page, key] satisfies Key, store).catch(() => {});
    this.change(this.all.filter((c) => c.key !== key));
  }

  private change(all: Coming[]): void {
    this.all = all;
    for (const listener of this.listeners) listener();
  }

  private set(key: string, change: Partial<Coming>): void {
    this.change(this.all.map((c) => (c.key === key ? { ...c, ...change } : c)));
  }

  private go(): void {
    while (this.sending.size < AT_ONCE) {
      const next = this.all.find((c) => c.state === "waiting" && !this.sending.has(c.key));
      if (!next) return;
      this.sendOne(next);
    }
  }

  private async sendOne({ key, name }: Coming): Promise<void> {
    const controller = new AbortController();
    this.sending.set(key, controller);
    this.set(key, { state: "sent", share: 0 });
    const file = this.files.get(key) ?? new Blob();
    try {
      const tell = (share: number) => this.set(key, { share });
      const picture = await this.send(file, name.slice(0, 200), key, tell, controller.signal);
      this.gone(key);
      this.onArrived?.(picture);
    } catch (error) {
      if (!controller.signal.aborted) this.failed(key, error);
    }
    this.sending.delete(key);
    this.go();
  }

  private failed(key: string, error: unknown): void {
    if (error instanceof ApiError && error.problem.status < 500 && error.problem.status !== 429) {
      const findings = error.problem.findings ?? [];
      const why = findings.map((f) => `${f.found}; allowed is ${f.allowed}`).join(" ") || error.message;
      this.set(key, { state: "refused", why });
      del([this.page, key] satisfies Key, store).catch(() => {});
      return;
    }
    this.set(key, { state: "offline", share: 0 });
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.change(this.all.map((c) => (c.state === "offline" ? { ...c, state: "waiting" } : c)));
      this.go();
    }, RETRY);
  }
}
