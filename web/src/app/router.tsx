import { createRootRoute, createRoute, createRouter, lazyRouteComponent, redirect } from "@tanstack/react-router";
import { Failed } from "@/shared/ui/Failed";
import { Root } from "./Root";
import { Shell } from "./Shell";

const root = createRootRoute({
  component: Root,
  errorComponent: ({ error }) => <Failed error={error instanceof Error ? error : new Error(String(error))} />,
  notFoundComponent: () => <Failed error={new Error("There is no such screen.")} />,
});

const join = createRoute({
  getParentRoute: () => root,
  path: "/join/$token",
  component: lazyRouteComponent(() => import("@/features/people/JoinScreen"), "JoinScreen"),
});

const password = createRoute({
  getParentRoute: () => root,
  path: "/password/$token",
  component: lazyRouteComponent(() => import("@/features/people/PasswordScreen"), "PasswordScreen"),
});

/** Screens under the house's own header. */
const house = createRoute({ getParentRoute: () => root, id: "house", component: Shell });

const table = createRoute({
  getParentRoute: () => house,
  path: "/",
  component: lazyRouteComponent(() => import("@/features/table/TableScreen"), "TableScreen"),
});

const drawer = createRoute({
  getParentRoute: () => house,
  path: "/drawer",
  component: lazyRouteComponent(() => import("@/features/drawer/DrawerScreen"), "DrawerScreen"),
});

const newSketch = createRoute({
  getParentRoute: () => house,
  path: "/drawer/new",
  component: lazyRouteComponent(() => import("@/features/sketch/SketchScreen"), "NewSketchScreen"),
});

const fromPicture = createRoute({
  getParentRoute: () => house,
  path: "/drawer/picture",
  component: lazyRouteComponent(() => import("@/features/picture/PictureScreen"), "PictureScreen"),
});

const sketch = createRoute({
  getParentRoute: () => house,
  path: "/sketches/$sketchId",
  component: lazyRouteComponent(() => import("@/features/sketch/SketchScreen"), "SketchScreen"),
});

const stash = createRoute({
  getParentRoute: () => house,
  path: "/stash",
  component: lazyRouteComponent(() => import("@/features/stash/StashScreen"), "StashScreen"),
});

const lookBack = createRoute({
  getParentRoute: () => house,
  path: "/look-back",
  component: lazyRouteComponent(() => import("@/features/lookback/LookBackScreen"), "LookBackScreen"),
});

const team = createRoute({
  getParentRoute: () => house,
  path: "/team",
  component: lazyRouteComponent(() => import("@/features/people/TeamScreen"), "TeamScreen"),
});

const season = createRoute({
  getParentRoute: () => house,
  path: "/season",
  component: lazyRouteComponent(() => import("@/features/season/SeasonScreen"), "SeasonScreen"),
});

const call = createRoute({
  getParentRoute: () => house,
  path: "/calls/$callId",
  component: lazyRouteComponent(() => import("@/features/season/CallScreen"), "CallScreen"),
});

const me = createRoute({
  getParentRoute: () => house,
  path: "/me",
  component: lazyRouteComponent(() => import("@/features/people/MeScreen"), "MeScreen"),
});

const page = createRoute({
  getParentRoute: () => root,
  path: "/pages/$pageId",
  beforeLoad: ({ params }) => {
    throw redirect({ to: "/pages/$pageId/$station", params: { pageId: params.pageId, station: "fit" } });
  },
});

const sheet = createRoute({
  getParentRoute: () => root,
  path: "/pages/$pageId/sheet",
  component: lazyRouteComponent(() => import("@/features/sheet/SheetScreen"), "SheetScreen"),
});

const station = createRoute({
  getParentRoute: () => root,
  path: "/pages/$pageId/$station",
  component: lazyRouteComponent(() => import("@/features/stations/StationScreen"), "StationScreen"),
});

export const router = createRouter({
  routeTree: root.addChildren([
    join,
    password,
    house.addChildren([table, drawer, newSketch, fromPicture, sketch, stash, lookBack, season, call, team, me]),
    page,
    sheet,
    station,
  ]),
});

declare module "@tanstack/react-router" {
  interface Register {
    router: typeof router;
  }
}
