// Changes of a plan as JSON merge patches (RFC 7396): what a patch names is set, what it names as null is removed. What a patch leaves
// alone stays the same object, so that whoever looks at a part sees whether it changed.

export type Patch = { readonly [name: string]: unknown };

const isObject = (value: unknown): value is Patch =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** A document with a patch applied; the same one where that changes nothing. */
export function patched<T>(document: T, patch: unknown): T {
  if (!isObject(patch)) return same(document, patch) ? document : (patch as T);
  const from: Patch = isObject(document) ? document : {};
  const to: Record<string, unknown> = { ...from };
  let changed = !isObject(document);
  for (const [name, set] of Object.entries(patch)) {
    if (set === null || set === undefined) {
      changed ||= name in to;
      delete to[name];
    } else {
      const value = patched(from[name], set);
      changed ||= value !== from[name];
      to[name] = value;
    }
  }
  return changed ? (to as T) : document;
}

/** The patch that takes one document to another; an empty object where they are the same. */
export function between(from: unknown, to: unknown): Patch {
  const [a, b] = [isObject(from) ? from : {}, isObject(to) ? to : {}];
  const patch: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(b)) {
    if (value === null || value === undefined || same(a[name], value)) continue;
    patch[name] = isObject(a[name]) && isObject(value) ? between(a[name], value) : value;
  }
  for (const name of Object.keys(a)) {
    if (a[name] !== undefined && (b[name] === null || b[name] === undefined)) patch[name] = null;
  }
  return patch;
}

export const isEmpty = (patch: Patch) => Object.keys(patch).length === 0;

/** Whether two values of JSON are the same. */
function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((item, n) => same(item, b[n]));
  if (!isObject(a) || !isObject(b)) return false;
  const names = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...names].every((name) => same(a[name], b[name]));
}
