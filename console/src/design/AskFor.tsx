import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, need } from "../api/client";
import { useMay } from "../api/may";
import { asks } from "../api/queries";
import { environmentPeople } from "../api/environments";
import { Ask } from "./Ask";
import { At } from "./time";

/** What one may not do oneself, and asks of those who may. */
interface Wish {
  act: "promote" | "roll-back" | "hold" | "lift-hold";
  component: string;
  environment: string;
  version?: string;
  /** What is asked, as it completes "ask somebody to ...". */
  words: string;
}

const ACTION = { promote: "PROMOTE", "roll-back": "ROLL_BACK", hold: "PROMOTE", "lift-hold": "PROMOTE" } as const;

/** Offers to ask for what one may not do oneself; what is asked already says so, and of whom. */
export function AskFor(wish: Wish) {
  const { act, component, environment, version, words } = wish;
  const client = useQueryClient();
  const may = useMay();
  const people = useQuery(environmentPeople(environment, component)).data;
  const own = useQuery(asks()).data;
  if (may(ACTION[act], { component, environment }) || !people || !own) return null;
  const word = ACTION[act].toLowerCase().replace("_", "-");
  const whom = people.filter((each) => each.may.some(({ action }) => action === word)).map((each) => each.account);
  const open = own.find(
    (each) =>
      !each.outcome &&
      each.act === act &&
      each.component === component &&
      each.environment === environment &&
      each.version === version,
  );
  if (open)
    return (
      <p className="quiet small-text">
        You asked <Whom names={open.asked} /> to {open.sentence}, <At time={open.at} />; see{" "}
        <Link to="/waiting">Waiting</Link>.
      </p>
    );
  if (whom.length === 0)
    return <p className="quiet small-text">Nobody may {words}: it takes a role that an administrator gives.</p>;
  return (
    <Ask
      label={`Ask somebody to ${words}`}
      title={`Ask somebody to ${words}`}
      reason="Why"
      needed
      act="Ask them"
      what={
        <p>
          You may not do it yourself; <Whom names={whom} /> may. It waits in their lists until one of them does it or
          declines, and you are told. Nothing else happens.
        </p>
      }
      onAct={async (why) => {
        await need(
          api.POST("/api/v1/asks", {
            body: { act, component, environment, words: why, ...(version && { version }) },
          }),
        );
        await client.invalidateQueries({ queryKey: ["asks"] });
      }}
    />
  );
}

const SHOWN = 6;

function Whom({ names }: { names: string[] }) {
  const more = names.length - SHOWN;
  return (
    <>
      {names.slice(0, SHOWN).join(", ")}
      {more > 0 && ` and ${more} more`}
    </>
  );
}
