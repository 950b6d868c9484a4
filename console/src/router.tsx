import { createBrowserRouter } from "react-router";
import { Frame } from "./design/Frame";
import { Trouble } from "./design/parts";

const page = (load: () => Promise<{ default: React.ComponentType }>) => async () => ({
  Component: (await load()).default,
});

/** Every page loads its own part. */
export const router = createBrowserRouter([
  { path: "/sign-in", lazy: page(() => import("./pages/sign-in/SignIn")) },
  { path: "/problems/:name", lazy: page(() => import("./pages/problem/ProblemType")) },
  {
    element: <Frame />,
    children: [
      { path: "/", lazy: page(() => import("./pages/whereabouts/Whereabouts")) },
      { path: "/components", lazy: page(() => import("./pages/components/Components")) },
      { path: "/components/:name", lazy: page(() => import("./pages/components/Component")) },
      { path: "/components/:name/pipeline", lazy: page(() => import("./pages/pipeline/Pipeline")) },
      { path: "/components/:name/pieces", lazy: page(() => import("./pages/pieces/Pieces")) },
      { path: "/chain", lazy: page(() => import("./pages/chain/Chain")) },
      { path: "/bring-in", lazy: page(() => import("./pages/bring-in/BringIn")) },
      { path: "/components/:name/address", lazy: page(() => import("./pages/bring-in/Address")) },
      { path: "/runs/:component/:number", lazy: page(() => import("./pages/run/Run")) },
      { path: "/versions/:component/:number", lazy: page(() => import("./pages/version/Version")) },
      { path: "/places/:component/:environment", lazy: page(() => import("./pages/place/Place")) },
      { path: "/deployments/:id", lazy: page(() => import("./pages/deployment/Deployment")) },
      { path: "/waiting", lazy: page(() => import("./pages/waiting/Waiting")) },
      { path: "/passages/:id", lazy: page(() => import("./pages/passage/Passage")) },
      { path: "/environments/:name", lazy: page(() => import("./pages/environment/Environment")) },
      { path: "/environments-file", lazy: page(() => import("./pages/environments-file/EnvironmentsFile")) },
      { path: "/sets", lazy: page(() => import("./pages/sets/Sets")) },
      { path: "/sets/:name", lazy: page(() => import("./pages/sets/OneSet")) },
      { path: "/api", lazy: page(() => import("./pages/api/Api")) },
      { path: "/link/:token", lazy: page(() => import("./pages/link/MailLink")) },
      { path: "*", element: <Trouble error={new Error("There is no page at this address.")} /> },
    ],
  },
]);
