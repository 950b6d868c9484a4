import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useMay, type Where } from "../../api/may";
import { Loading, Trouble } from "../../design/parts";
import { BringBack } from "../../design/Retire";
import { At } from "../../design/time";
import { None, Rows, Sheet } from "./parts";
import { retired } from "./queries";

type View = Schemas["RetiredView"];

/** Which action brings back what. */
const ACTION: Record<string, string> = { component: "REGISTER_COMPONENT", agent: "ENROL_AGENT" };

/** What is out of use, of every kind, and the way back. */
export default function Retired() {
  const known = useQuery(retired());
  const may = useMay();
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble whole error={known.error} />;
  return (
    <>
      <title>Retired · Settings · Paseo</title>
      <Sheet lead title="Retired" about="Out of use: nothing starts or is deployed of it. Its history stays.">
        {known.data.length === 0 && <None>Nothing is. What is retired stands here, and comes back from here.</None>}
        {known.data.length > 0 && (
          <Rows head={["Name", "What it is", "Retired", ""]}>
            {known.data.map((each) => (
              <tr key={`${each.what} ${each.name} ${each.environment ?? ""}`}>
                <td className="align-middle">
                  <b>
                    <Named view={each} />
                  </b>
                </td>
                <td className="align-middle">{each.what.replace("-", " ")}</td>
                <td className="align-middle">
                  <At time={each.at} />
                </td>
                <td className="align-middle text-right">
                  {may(ACTION[each.what] ?? "EDIT_ENVIRONMENT", of(each)) && <BringBack small {...each} />}
                </td>
              </tr>
            ))}
          </Rows>
        )}
      </Sheet>
    </>
  );
}

/** For what one has to be allowed to bring it back. */
const of = ({ what, name, environment }: View): Where => {
  if (what === "component") return { component: name };
  if (what === "environment") return { environment: name };
  return environment ? { component: name, environment } : {};
};

/** Its name, which leads to its page where it still has one. */
function Named({ view: { what, name, environment } }: { view: View }) {
  if (environment) return <Link to={`/places/${name}/${environment}`}>{`${name} in ${environment}`}</Link>;
  return what === "component" ? <Link to={`/components/${name}`}>{name}</Link> : name;
}
