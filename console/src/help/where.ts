/** Which page of the docs says what a page is for, by the beginning of its path; the first that fits. */
export const HELP: [path: RegExp, page: string][] = [
  [/^\/waiting|^\/passages\//, "how-to/approve"],
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
  [/^\/runs/, "explanation/how-it-works"],
  [/^\/chain/, "explanation/how-it-works"],
  [/^\/settings\/agents/, "how-to/agent"],
  [/^\/settings\/hosts/, "how-to/ssh-hosts"],
  [/^\/settings\/(accounts|groups)/, "how-to/accounts"],
  [/^\/settings\/receivers/, "reference/events"],
  [/^\/settings\/previews/, "how-to/previews"],
  [/^\/settings\/environments/, "how-to/environment"],
  [/^\/settings\/values/, "reference/variables"],
  [/^\/settings\/service/, "reference/settings"],
  [/^\/settings\/components/, "how-to/component"],
  [/^\/api/, "reference/api"],
];

/** The page of the docs for a path of the console. */
export const helpOf = (pathname: string) => HELP.find(([path]) => path.test(pathname))?.[1] ?? "how-to/console";
