import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useLocation, useParams } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { environmentsFile } from "../../api/environments";
import { Refused, useTrying, wrongAt } from "../../design/form";
import { Loading, Trouble } from "../../design/parts";
import { Desk } from "../environments-file/EnvironmentsFile";

const OFFER =
  "grid grid-cols-[320px_minmax(0,1fr)] items-center gap-x-6 border-t border-line py-2 max-[720px]:grid-cols-1";

type Offers = Schemas["OffersView"];
/** Environment to host to address. */
type Places = Record<string, Record<string, string>>;

/** Where a component runs: hosts and addresses are offered, and what is chosen is shown as the file that is loaded. */
export default function Address() {
  const { name = "" } = useParams();
  const { state } = useLocation() as { state?: { text?: string } };
  const offers = useQuery({
    queryKey: ["offers", name],
    queryFn: () => need(api.GET("/api/v1/components/{name}/places/offers", { params: { path: { name } } })),
    staleTime: 0,
  });
  if (offers.isPending) return <Loading height={520} />;
  if (offers.isLoadingError) return <Trouble whole error={offers.error} />;
  return <Choosing name={name} offers={offers.data} text={state?.text} />;
}

const already = (offers: Offers[]): Places =>
  Object.fromEntries(
    offers
      .map((each) => [each.environment, each.hosts.filter((host) => host.taken)] as const)
      .filter(([, hosts]) => hosts.length > 0)
      .map(([environment, hosts]) => [environment, Object.fromEntries(hosts.map((host) => [host.host, host.url]))]),
  );

/** Environment to the place that it begins as there, both told as component:environment. */
const likeOf = (likes: Record<string, string>) =>
  Object.fromEntries(
    Object.entries(likes)
      .filter(([, like]) => like !== "")
      .map(([environment, like]) => {
        const [component = "", of = ""] = like.split(":");
        return [environment, { component, environment: of }];
      }),
  );

/** The places that one may begin as: its own elsewhere, and those of others here. */
const beginnings = (name: string, offers: Offers[], here: Offers): string[] => [
  ...offers
    .filter((each) => each !== here && each.hosts.some((host) => host.taken))
    .map((each) => `${name}:${each.environment}`),
  ...[...new Set(here.hosts.flatMap((host) => host.others))].map((other) => `${other}:${here.environment}`),
];

function Choosing({ name, offers, text }: { name: string; offers: Offers[]; text: string | undefined }) {
  const [places, setPlaces] = useState(() => already(offers));
  const [likes, setLikes] = useState<Record<string, string>>({});
  const [drafted, setDrafted] = useState<Schemas["TextView"]>();
  const { trying, busy, refused } = useTrying();
  const file = useQuery(environmentsFile());
  const next = `/components/${name}/pipeline`;
  const draft = () =>
    trying(async () => {
      setDrafted(
        await need(
          api.POST("/api/v1/components/{name}/places/draft", {
            params: { path: { name } },
            body: { places, like: likeOf(likes) },
          }),
        ),
      );
    });
  if (drafted && file.data) {
    return (
      <Desk
        title={`Where ${name} runs`}
        about="This is what changes of the environments file. Load it, and versions can be brought there."
        file={{ ...file.data, digest: drafted.digest }}
        draft={drafted.text}
        before={file.data.text}
        back={next}
        state={{ text }}
      />
    );
  }
  const set = (environment: string, host: string, url: string | undefined) =>
    setPlaces((before) => {
      const hosts = {
        ...Object.fromEntries(Object.entries(before[environment] ?? {}).filter(([name]) => name !== host)),
      };
      if (url !== undefined) hosts[host] = url;
      const others = Object.entries(before).filter(([name]) => name !== environment);
      return Object.fromEntries(Object.keys(hosts).length > 0 ? [...others, [environment, hosts]] : others);
    });
  return (
    <>
      <title>{`Where ${name} runs · Paseo`}</title>
      <div className="title-line">
        <h1>Where {name} runs</h1>
        <p>Choose its hosts in each environment, and the address at which it answers there.</p>
      </div>
      <form
        className="sheet max-w-[860px] p-5"
        onSubmit={(event) => {
          event.preventDefault();
          void draft();
        }}
      >
        {offers.map((each) => (
          <fieldset key={each.environment} className="m-0 mb-6 min-w-0 border-0 p-0">
            <legend className="mb-2 p-0 text-[16px] font-semibold">{each.environment}</legend>
            {each.hosts.length === 0 && (
              <p className="m-0 text-ink-2">
                No host of this environment or of none yet. Enrol one:{" "}
                <code>paseo agent enrol NAME --host NAME --lines</code>
              </p>
            )}
            {each.hosts.map((offer) => {
              const url = places[each.environment]?.[offer.host];
              return (
                <div key={offer.host} className={OFFER}>
                  <label className="flex cursor-pointer items-center gap-2">
                    <input
                      type="checkbox"
                      checked={url !== undefined}
                      onChange={(event) =>
                        set(each.environment, offer.host, event.target.checked ? offer.url : undefined)
                      }
                      className="size-4 flex-none"
                    />
                    <span>
                      {offer.host}
                      <span className="block text-[12px] text-ink-3">
                        {offer.others.length > 0 ? `beside ${offer.others.join(", ")}` : "nothing else is on it"}
                      </span>
                    </span>
                  </label>
                  {url !== undefined && (
                    <input
                      aria-label={`Address of ${name} on ${offer.host} in ${each.environment}`}
                      value={url}
                      onChange={(event) => set(each.environment, offer.host, event.target.value)}
                      spellCheck={false}
                      className="font-mono"
                    />
                  )}
                </div>
              );
            })}
            {each.environment in places && beginnings(name, offers, each).length > 0 && (
              <label className="mt-2 flex items-center gap-2 text-[13px] text-ink-2">
                Variables and secrets like
                <select
                  value={likes[each.environment] ?? ""}
                  onChange={(event) => setLikes({ ...likes, [each.environment]: event.target.value })}
                >
                  <option value="">none</option>
                  {beginnings(name, offers, each).map((like) => (
                    <option key={like} value={like}>
                      {like.replace(":", " in ")}
                    </option>
                  ))}
                </select>
              </label>
            )}
            {wrongAt(refused, `/places/${each.environment}`) && (
              <p className="field-error" role="alert">
                {wrongAt(refused, `/places/${each.environment}`)}
              </p>
            )}
          </fieldset>
        ))}
        <Refused refused={refused} beside={["/places"]} />
        <div className="flex items-center gap-3">
          <button type="submit" className="btn primary" disabled={busy || Object.keys(places).length === 0}>
            Show the change
          </button>
          <Link className="btn quiet-btn" to={next} state={{ text }}>
            Later
          </Link>
        </div>
      </form>
    </>
  );
}
