import { Outlet, useLocation } from "@tanstack/react-router";
import { useEffect } from "react";
import { SignIn } from "@/features/people/SignIn";
import { useMe } from "@/features/people/useMe";
import { SharedPatterns } from "@/shared/drawing/BlockShape";
import { Failed } from "@/shared/ui/Failed";
import { applyTheme } from "@/shared/ui/theme";
import { KeySheet } from "./KeySheet";

/** Whoever is not signed in stands before the door, except on a link that lets her in. */
export function Root() {
  const me = useMe();
  const { pathname } = useLocation();
  const theme = me.data?.defaults.theme;
  useEffect(() => applyTheme(theme), [theme]);
  if (me.isError) return <Failed error={me.error} onRetry={() => me.refetch()} />;
  if (!me.data) return <p className="p-6 text-second">Opening…</p>;
  if (!me.data.id && !pathname.startsWith("/join/")) return <SignIn demo={me.data.demo} />;
  return (
    <>
      <SharedPatterns />
      <Outlet />
      <KeySheet />
    </>
  );
}
