// The team that this tab works in. Each tab has its own, so that two tabs can be in two teams.

const KEY = "metrosk-team";

/** The tab's team, once it is known. */
export const currentTeam = (): string | undefined => sessionStorage.getItem(KEY) ?? undefined;

export function setCurrentTeam(team: string | null | undefined) {
  if (team) sessionStorage.setItem(KEY, team);
  else sessionStorage.removeItem(KEY);
}

/** An address that names the team, for what can send no header: images, downloads, event streams. */
export function withTeam(address: string): string {
  const team = currentTeam();
  return team ? `${address}${address.includes("?") ? "&" : "?"}team=${team}` : address;
}
