// Sending a file with its progress: fetch does not tell how much of a body has gone.

import { ApiError, OfflineError, type PictureView, type Problem } from "./client";
import { currentTeam } from "./team";

/** Sends a photo; `onProgress` is told the share that has gone. */
export function sendPhoto(
  file: Blob,
  name: string,
  key: string,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<PictureView> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", `/api/pictures?photo=true&name=${encodeURIComponent(name)}`);
    request.responseType = "json";
    request.setRequestHeader("Content-Type", "application/octet-stream");
    request.setRequestHeader("Idempotency-Key", key);
    const team = currentTeam();
    if (team) request.setRequestHeader("Metrosk-Team", team);
    request.upload.onprogress = (e) => onProgress(e.lengthComputable ? e.loaded / e.total : 0);
    request.onload = () => {
      if (request.status < 300) resolve(request.response as PictureView);
      else {
        const known = request.response as Problem | null;
        const title = `The server answered ${request.status}`;
        reject(new ApiError(known ?? { type: "unknown", title, status: request.status, detail: "" }));
      }
    };
    request.onerror = () => reject(new OfflineError());
    request.onabort = () => reject(new DOMException("cancelled", "AbortError"));
    signal.addEventListener("abort", () => request.abort());
    request.send(file);
  });
}
