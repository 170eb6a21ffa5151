import { useEffect, useRef } from "react";
import { leadsToPage } from "./letterKeys";
import { useKeyBindings } from "./useKeyBindings";

/** Where the page lies. It takes the focus when it is opened and on Escape, and letter keys work while it has it. */
export function PageArea({ children, className = "" }: { children: React.ReactNode; className?: string }) {
  const area = useRef<HTMLElement>(null);
  const focus = () => area.current?.focus({ preventScroll: true });
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when it is opened
  useEffect(() => {
    // Who writes elsewhere already isn't taken away from there.
    if (document.activeElement === document.body) focus();
  }, []);
  useKeyBindings({ Escape: (e) => leadsToPage(e) && focus() });
  return (
    <section
      ref={area}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: keys are meant for the page while it has the focus
      tabIndex={0}
      data-keys="page"
      aria-label="The page"
      className={`!outline-offset-[-3px] p-1.5 ${className}`}
    >
      {children}
    </section>
  );
}
