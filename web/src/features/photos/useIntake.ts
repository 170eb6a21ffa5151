import { useEffect, useRef, useState, useSyncExternalStore } from "react";
import type { PictureView } from "@/api/client";
import { Intake } from "./intake";

/** How long arrivals are gathered before they go on the worktop together, in milliseconds. */
const GATHER = 250;

/** A page's pictures on their way in. Those that arrived together are handed on together. */
export function useIntake(page: string, onPictures: (pictures: readonly PictureView[]) => void) {
  const [intake] = useState(() => new Intake(page));
  const coming = useSyncExternalStore(intake.subscribe, intake.shown);
  const hand = useRef(onPictures);
  hand.current = onPictures;
  useEffect(() => {
    let arrived: PictureView[] = [];
    let timer: ReturnType<typeof setTimeout> | undefined;
    const handOn = () => {
      const pictures = arrived;
      arrived = [];
      if (pictures.length > 0) hand.current(pictures);
    };
    intake.onArrived = (picture) => {
      arrived.push(picture);
      clearTimeout(timer);
      timer = setTimeout(handOn, GATHER);
    };
    intake.resume();
    return () => {
      clearTimeout(timer);
      handOn();
      intake.onArrived = undefined;
      intake.stop();
    };
  }, [intake]);
  return { coming, add: (files: readonly File[]) => intake.add(files), drop: (key: string) => intake.drop(key) };
}
