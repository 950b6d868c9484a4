/** Which page of the docs, at which heading, says what a page is for, by its path; the first that fits. */
export const HELP: [path: RegExp, page: string][] = [
  [/^\/passages\//, "explanation/gates#gates-onward"],
  [/^\/waiting/, "how-to/approve"],
  [/^\/deployments\/\d/, "how-to/approve"],
  [/^\/deployments/, "how-to/deploy"],
  [/^\/places\//, "how-to/roll-back"],
  [/^\/versions\//, "how-to/deploy"],
  [/^\/versions/, "explanation/concepts"],
  [/^\/environments-file/, "reference/environments-file"],
  [/^\/environments\//, "how-to/environment"],
  [/^\/sets/, "how-to/sets"],
  [/^\/bring-in/, "how-to/component"],
  [/^\/components\/[^/]+\/pipeline/, "reference/pipeline-file"],
  [/^\/components\/[^/]+\/pieces/, "how-to/pieces"],
  [/^\/components\/[^/]+\/address/, "how-to/environment"],
  [/^\/components/, "how-to/component"],
  [/^\/runs/, "explanation/how-it-works#a-run"],
  [/^\/chain|^\/events/, "how-to/hooks#why-something-started-or-did-not"],
  [/^\/settings\/agents/, "how-to/agent#enrol-it"],
  [/^\/settings\/hosts/, "how-to/environment#hosts-in-maintenance"],
  [/^\/settings\/(accounts|groups)/, "how-to/accounts"],
  [/^\/settings\/yours/, "how-to/accounts#tokens-for-programs"],
  [/^\/settings\/receivers/, "how-to/hooks#events-that-are-sent"],
  [/^\/settings\/previews/, "how-to/previews"],
  [/^\/settings\/environments/, "how-to/environment#variables-and-secrets"],
  [/^\/settings\/values/, "reference/variables"],
  [/^\/settings\/service/, "how-to/install#watching-it"],
  [/^\/settings\/components/, "how-to/component"],
  [/^\/api/, "reference/api"],
];

/** The page of the docs for a path of the console, with the heading. */
export const helpOf = (pathname: string) => HELP.find(([path]) => path.test(pathname))?.[1] ?? "how-to/console";
