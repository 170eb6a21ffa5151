import { useMe } from "./useMe";
import { useSaveMe } from "./useSaveMe";

/** Checks of a page that she never wants, on any page; switched here. */
export function useChecksOff() {
  const me = useMe().data;
  const { save } = useSaveMe();
  const never = me?.defaults.checks_off ?? [];
  const keep = (checks_off: string[]) =>
    save.mutate({ name: me?.name ?? "", defaults: { ...me?.defaults, checks_off } });
  return {
    never,
    switchOff: (what: string) => keep([...new Set([...never, what])]),
    switchOn: (what: string) => keep(never.filter((n) => n !== what)),
  };
}
