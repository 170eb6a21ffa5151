import { useEffect, useRef } from "react";
import { type KeyBindingMap, tinykeys } from "tinykeys";

/** Keys that work while a part of the screen is shown. The names are tinykeys': `$mod+z`, `Escape`, `ArrowDown`. */
export function useKeyBindings(bindings: KeyBindingMap) {
  const newest = useRef(bindings);
  newest.current = bindings;
  const names = Object.keys(bindings).join(" ");
  useEffect(() => {
    const call = (name: string) => [name, (e: KeyboardEvent) => newest.current[name]?.(e)] as const;
    return tinykeys(window, Object.fromEntries(names.split(" ").map(call)));
  }, [names]);
}
