import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { useFresh, useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { environmentRules } from "../../api/environments";
import { Doing } from "../../design/Doing";
import { Loading, Trouble } from "../../design/parts";
import { None, Once, Sentence, Sheet } from "./parts";
import { environments } from "./queries";
import { Retire } from "../../design/Retire";

type View = Schemas["EnvironmentView"];

/** The environments in their order: their rules are one file, changed by forms or as a text. */
export default function Environments() {
  const known = useQuery(environments());
  const may = useMay();
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble whole error={known.error} />;
  return (
    <>
      <title>Environments · Settings · Paseo</title>
      <div className="mb-4 flex items-center gap-4">
        <h1 className="m-0 grow">Environments</h1>
        {may("EDIT_ENVIRONMENT") && (
          <Link className="btn" to="/environments-file">
            Change them
          </Link>
        )}
      </div>
      {known.data.length === 0 && (
        <None>
          None yet. <Link to="/environments-file">Write the first one</Link>: its gates, its places, its hosts.
        </None>
      )}
      {known.data.map((view) => (
        <One
          key={view.name}
          view={view}
          edits={may("EDIT_ENVIRONMENT", { environment: view.name })}
          sets={may("SET_SECRET", { environment: view.name })}
        />
      ))}
    </>
  );
}

function One({ view, edits, sets }: { view: View; edits: boolean; sets: boolean }) {
  const { gates, components, rollback } = view.rules;
  const said = useQuery(environmentRules(view.name)).data?.words;
  const words: [string, string[]][] = said
    ? [
        ["To enter it", said.promotion],
        ["To go on from it", said.toGoOn],
        ["To roll back in it", said.rollback],
      ]
    : [];
  const outside = [gates, ...Object.values(components)]
    .flatMap((each) => [each.toEnter, each.toGoOn])
    .concat(rollback)
    .flatMap((gate) => gate.outside.map((each) => each.name));
  return (
    <Sheet
      title={view.name}
      about={`Times there are those of ${view.zone}. Its rules are of revision ${view.rulesRevision}.`}
      acts={edits && <Retire what="environment" name={view.name} />}
      history={view.name}
    >
      {words.map(([part, sentences]) => (
        <Sentence
          key={part}
          change={
            edits && (
              <Link className="btn small" to={`/environments-file?environment=${view.name}`}>
                Change
              </Link>
            )
          }
        >
          <b>{part}</b>
          {sentences.map((each) => (
            <span key={each} className="block text-[13px]">
              {each}
            </span>
          ))}
          {sentences.length === 0 && <span className="block text-[13px] text-ink-2">nothing is asked</span>}
        </Sentence>
      ))}
      {view.rules.closed && (
        <Sentence>
          <Link to={`/environments/${view.name}`}>A calendar says when it is closed.</Link>
        </Sentence>
      )}
      {[...new Set(outside)].map((name) => (
        <Sentence key={name} change={sets && <OutsideSecret environment={view.name} criterion={name} />}>
          The program <b>{name}</b> is asked; its questions are signed.
        </Sentence>
      ))}
    </Sheet>
  );
}

function OutsideSecret({ environment, criterion }: { environment: string; criterion: string }) {
  const fresh = useFresh();
  return (
    <Doing
      small
      label="New secret"
      title={`A new secret for ${criterion} in ${environment}`}
      what={<p>Its questions are signed with it from now on. The one before no longer holds.</p>}
      act="Make it"
      onAct={async () => {
        const made = await need(
          api.POST("/api/v1/environments/{name}/outside/{criterion}/secret", {
            params: { path: { name: environment, criterion } },
          }),
        );
        await fresh();
        return <Once words={`${criterion} checks signatures with it. It is not shown again.`} value={made.secret} />;
      }}
    />
  );
}
