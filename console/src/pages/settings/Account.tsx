import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { useFresh, useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { Ask } from "../../design/Ask";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { COMMAS, ROLES } from "./Accounts";
import { listed, Once, Sentence, Sheet } from "./parts";
import { Tokens } from "./Tokens";

type View = Schemas["AccountView"];

/** One account: what it may, its groups and addresses, its tokens; disabled and enabled. */
export default function Account() {
  const { name = "" } = useParams();
  const known = useQuery({
    queryKey: ["accounts", name],
    queryFn: () => need(api.GET("/api/v1/accounts/{name}", { params: { path: { name } } })),
  });
  const may = useMay();
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble whole error={known.error} />;
  const view = known.data;
  const manages = may("MANAGE_ACCOUNTS");
  return (
    <>
      <title>{`${name} · Settings · Paseo`}</title>
      <p className="m-0 mb-2 text-[13px]">
        <Link to="/settings/accounts">Accounts</Link>
      </p>
      <Sheet lead title={name} about={about(view)} acts={manages && <Acts view={view} />} history={name}>
        <Sentence change={manages && <Change view={view} what="roles" about={ROLES} />}>
          It is {view.roles.length > 0 ? <b>{view.roles.join(", ")}</b> : <>without a role of its own</>}
          {view.byGroups.length > 0 && <>, and by its groups {view.byGroups.join(", ")}</>}.
        </Sentence>
        <Sentence change={manages && <Change view={view} what="groups" about={COMMAS} />}>
          It is in {view.groups.length > 0 ? <b>{view.groups.join(", ")}</b> : "no group"}.
        </Sentence>
        <Sentence change={manages && <Change view={view} what="addresses" about={COMMAS} />}>
          Mail goes to {view.addresses.length > 0 ? <b>{view.addresses.join(", ")}</b> : "nowhere: it has no address"}.
        </Sentence>
      </Sheet>
      <Tokens name={name} />
    </>
  );
}

function about(view: View) {
  return (
    <>
      Added <At time={view.addedAt} />;{" "}
      {view.signedInAt ? (
        <>
          signed in last <At time={view.signedInAt} />
        </>
      ) : (
        "never signed in"
      )}
      {view.external && "; signs in by another service"}
      {view.disabled && (
        <span className="block text-bad">
          Disabled by {view.disabled.by} <At time={view.disabled.at} />: {view.disabled.reason}
        </span>
      )}
    </>
  );
}

/** A list of the account, which replaces the one before. */
function Change({ view, what, about }: { view: View; what: "roles" | "groups" | "addresses"; about: string }) {
  const [text, setText] = useState(view[what].join(", "));
  const fresh = useFresh();
  return (
    <Doing
      small
      label="Change"
      title={`The ${what} of ${view.name}`}
      what={<p>What stands here replaces what was, and holds at once.</p>}
      act="Change them"
      beside={[`/${what}`]}
      fields={(refused) => (
        <TextField
          label={what.charAt(0).toUpperCase() + what.slice(1)}
          about={`${about}; empty: none`}
          at={`/${what}`}
          refused={refused}
          value={text}
          onType={setText}
        />
      )}
      onAct={async () => {
        await need(
          api.PUT("/api/v1/accounts/{name}", {
            params: { path: { name: view.name } },
            body: { [what]: listed(text) },
          }),
        );
        await fresh();
        return undefined;
      }}
    />
  );
}

function Acts({ view }: { view: View }) {
  const fresh = useFresh();
  const params = { params: { path: { name: view.name } } };
  return (
    <>
      {!view.external && !view.disabled && (
        <Doing
          label="New code"
          title={`A code for ${view.name}`}
          what={<p>With it a new password can be set, once, within a day. The present one holds until then.</p>}
          act="Make it"
          onAct={async () => {
            const made = await need(api.POST("/api/v1/accounts/{name}/code", params));
            await fresh();
            return <Once words={`${view.name} sets a password with this code:`} value={made.code ?? ""} />;
          }}
        />
      )}
      {view.disabled ? (
        <Ask
          label="Enable"
          title={`Enable ${view.name}`}
          what={<p>It may sign in again, with the roles it has. Its tokens stay revoked.</p>}
          act="Enable it"
          reason=""
          onAct={async () => {
            await need(api.DELETE("/api/v1/accounts/{name}/disabled", params));
            await fresh();
          }}
        />
      ) : (
        <Ask
          danger
          label="Disable"
          title={`Disable ${view.name}`}
          what={
            <p>
              Its sessions and open pages end at once, its{" "}
              {view.tokens === 1 ? "token is" : `${view.tokens} tokens are`} revoked for good, and no gate asks it any
              more.
            </p>
          }
          act="Disable it"
          reason="Why"
          needed
          onAct={async (reason) => {
            await need(api.PUT("/api/v1/accounts/{name}/disabled", { ...params, body: { reason } }));
            await fresh();
          }}
        />
      )}
    </>
  );
}
