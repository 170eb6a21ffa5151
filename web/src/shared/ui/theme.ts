// Light or dark, as she has said or as the machine is set.

/** Puts a theme on; returns what takes the listener off again. */
export function applyTheme(theme: string | null | undefined): () => void {
  const dark = window.matchMedia("(prefers-color-scheme: dark)");
  const put = () => {
    const on = theme === "dark" || (theme !== "light" && dark.matches);
    document.documentElement.dataset.theme = on ? "dark" : "light";
  };
  put();
  dark.addEventListener("change", put);
  return () => dark.removeEventListener("change", put);
}
