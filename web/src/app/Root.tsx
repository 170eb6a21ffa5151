import { Outlet, useLocation } from "@tanstack/react-router";
import { useEffect } from "react";
import { NoTeam } from "@/features/people/NoTeam";
import { SignIn } from "@/features/people/SignIn";
import { useMe } from "@/features/people/useMe";
import { SharedPatterns } from "@/shared/drawing/BlockShape";
import { useEvents } from "@/shared/events/useEvents";
import { Failed } from "@/shared/ui/Failed";
import { switchLetterKeys } from "@/shared/ui/letterKeys";
import { applyTheme } from "@/shared/ui/theme";
import { KeySheet } from "./KeySheet";

/** Whoever is not signed in stands before the door, except on a link that lets her in. */
export function Root() {
  const me = useMe();
  const { pathname } = useLocation();
  const { theme, letter_keys } = me.data?.defaults ?? {};
  useEvents(me.data?.team?.id);
  useEffect(() => applyTheme(theme), [theme]);
  useEffect(() => switchLetterKeys(letter_keys !== "off"), [letter_keys]);
  // Once it is known who she is, a look that fails takes nothing off the screen.
  if (me.isLoadingError) return <Failed error={me.error} onRetry={() => me.refetch()} />;
  if (!me.data) return <p className="p-6 text-second">Opening…</p>;
  const byLink = pathname.startsWith("/join/") || pathname.startsWith("/password/");
  if (!me.data.id && !byLink) return <SignIn demo={me.data.demo} />;
  if (me.data.id && !me.data.team && !byLink) return <NoTeam me={me.data} />;
  return (
    <>
      <SharedPatterns />
      <Outlet />
      <KeySheet />
    </>
  );
}
