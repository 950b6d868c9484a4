import { createBrowserRouter } from "react-router";
import { signedInFirst } from "./api/session";
import { Frame } from "./design/Frame";
import { Failed, Loading, NoPage } from "./design/parts";

const page = (load: () => Promise<{ default: React.ComponentType }>) => async () => ({
  Component: (await load()).default,
});

/** Every page loads its own part. */
const pages = [
  { path: "/sign-in", lazy: page(() => import("./pages/sign-in/SignIn")) },
  { path: "/problems/:name", lazy: page(() => import("./pages/problem/ProblemType")) },
  {
    element: <Frame />,
    loader: signedInFirst,
    shouldRevalidate: () => false,
    children: [
      { path: "/", lazy: page(() => import("./pages/whereabouts/Whereabouts")) },
      { path: "/components", lazy: page(() => import("./pages/components/Components")) },
      { path: "/components/:name", lazy: page(() => import("./pages/components/Component")) },
      { path: "/components/:name/pipeline", lazy: page(() => import("./pages/pipeline/Pipeline")) },
      { path: "/components/:name/compare", lazy: page(() => import("./pages/compare/Compare")) },
      { path: "/components/:name/pieces", lazy: page(() => import("./pages/pieces/Pieces")) },
      { path: "/chain", lazy: page(() => import("./pages/chain/Chain")) },
      { path: "/bring-in", lazy: page(() => import("./pages/bring-in/BringIn")) },
      { path: "/components/:name/address", lazy: page(() => import("./pages/bring-in/Address")) },
      { path: "/runs/:component/:number", lazy: page(() => import("./pages/run/Run")) },
      { path: "/versions/:component/:number", lazy: page(() => import("./pages/version/Version")) },
      { path: "/places/:component/:environment", lazy: page(() => import("./pages/place/Place")) },
      { path: "/runs", lazy: page(() => import("./pages/lists/Runs")) },
      { path: "/versions", lazy: page(() => import("./pages/lists/Versions")) },
      { path: "/audit", lazy: page(() => import("./pages/audit/Audit")) },
      { path: "/pace/shifts", lazy: page(() => import("./pages/pace/Shifts")) },
      { path: "/pace", lazy: page(() => import("./pages/pace/Pace")) },
      { path: "/history", lazy: page(() => import("./pages/history/History")) },
      { path: "/packages", lazy: page(() => import("./pages/packages/Packages")) },
      { path: "/origins", lazy: page(() => import("./pages/origin/Origin")) },
      { path: "/origins/:sha256", lazy: page(() => import("./pages/origin/Origin")) },
      { path: "/events", lazy: page(() => import("./pages/lists/Events")) },
      { path: "/deployments", lazy: page(() => import("./pages/lists/Deployments")) },
      { path: "/deployments/:id", lazy: page(() => import("./pages/deployment/Deployment")) },
      { path: "/waiting", lazy: page(() => import("./pages/waiting/Waiting")) },
      { path: "/passages/:id", lazy: page(() => import("./pages/passage/Passage")) },
      { path: "/environments/:name", lazy: page(() => import("./pages/environment/Environment")) },
      { path: "/environments-file", lazy: page(() => import("./pages/environments-file/EnvironmentsFile")) },
      { path: "/sets", lazy: page(() => import("./pages/sets/Sets")) },
      { path: "/sets/:name", lazy: page(() => import("./pages/sets/OneSet")) },
      {
        path: "/settings",
        lazy: page(() => import("./pages/settings/Settings")),
        children: [
          { index: true, lazy: page(() => import("./pages/settings/Yours")) },
          { path: "yours", lazy: page(() => import("./pages/settings/Yours")) },
          { path: "components", lazy: page(() => import("./pages/settings/Components")) },
          { path: "components/:name", lazy: page(() => import("./pages/settings/OneComponent")) },
          { path: "values", lazy: page(() => import("./pages/settings/Values")) },
          { path: "previews", lazy: page(() => import("./pages/settings/Previews")) },
          { path: "environments", lazy: page(() => import("./pages/settings/Environments")) },
          { path: "agents", lazy: page(() => import("./pages/settings/Agents")) },
          { path: "hosts", lazy: page(() => import("./pages/settings/Hosts")) },
          { path: "retired", lazy: page(() => import("./pages/settings/Retired")) },
          { path: "accounts", lazy: page(() => import("./pages/settings/Accounts")) },
          { path: "accounts/:name", lazy: page(() => import("./pages/settings/Account")) },
          { path: "groups", lazy: page(() => import("./pages/settings/Groups")) },
          { path: "receivers", lazy: page(() => import("./pages/settings/Receivers")) },
          { path: "receivers/:name", lazy: page(() => import("./pages/settings/Messages")) },
          { path: "service", lazy: page(() => import("./pages/settings/Service")) },
        ],
      },
      { path: "/docs", lazy: page(() => import("./pages/docs/Docs")) },
      { path: "/docs/:room/:name", lazy: page(() => import("./pages/docs/Docs")) },
      { path: "/api", lazy: page(() => import("./pages/api/Api")) },
      { path: "/link/:token", lazy: page(() => import("./pages/link/MailLink")) },
      { path: "*", element: <NoPage /> },
    ],
  },
];

export const router = createBrowserRouter([
  { hydrateFallbackElement: <Loading height={480} />, errorElement: <Failed />, children: pages },
]);
