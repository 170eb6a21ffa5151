import { ApiError, api, type PictureReading, type PictureShown, type Problem } from "@/api/client";
import { onTold } from "@/shared/events/stream";

/** Reads a sketch from a picture that was put in, telling each stage; stopping it stops the server too. It lies in no drawer yet. */
export async function readPicture(
  id: string,
  shown: PictureShown,
  onStage: (stage: string) => void,
  stop: AbortSignal,
): Promise<PictureReading> {
  const job = await api.readPicture(id, shown);
  return new Promise((resolve, reject) => {
    const stopped = () => {
      deaf();
      reject(new DOMException("stopped", "AbortError"));
    };
    const look = () =>
      api.job(job.id).then(({ state, progress, outcome, problem }) => {
        if (progress) onStage(progress);
        if (state === "waiting" || state === "running") return;
        deaf();
        if (state === "done") resolve(outcome as PictureReading);
        else if (state === "cancelled") stopped();
        else reject(new ApiError(problem as Problem));
      }, lost);
    const lost = (error: Error) => {
      deaf();
      reject(error);
    };
    const deaf = onTold((told) => {
      if (told.kind === "again") return void look();
      const { thing, state, progress } = told.event;
      if (thing !== job.id) return;
      if (progress) onStage(progress);
      if (state !== "waiting" && state !== "running") look();
    });
    const cancel = () => {
      stopped();
      api.cancelJob(job.id).catch(() => {});
    };
    if (stop.aborted) return cancel();
    stop.addEventListener("abort", cancel);
    // It may have ended before anybody listened.
    look();
  });
}
