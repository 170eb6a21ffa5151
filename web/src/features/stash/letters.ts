// How many letters of a set are left.

export type Left = Record<string, number> | null | undefined;

/** The counts with another one for a letter. */
export const withCount = (left: Left, letter: string, count: number): Record<string, number> => ({
  ...left,
  [letter]: Math.max(0, count),
});

/** The counts after letters were typed as they lie on a sheet; spaces between them mean nothing. */
export function added(left: Left, typed: string): Record<string, number> {
  const counts: Record<string, number> = { ...left };
  for (const letter of typed.replace(/\s+/gu, "")) counts[letter] = (counts[letter] ?? 0) + 1;
  return counts;
}
