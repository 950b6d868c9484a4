import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { Loading, Trouble } from "../../design/parts";
import { Narrowed, None, Rows, Sheet, ToComponent } from "./parts";
import { components } from "./queries";

/** Every component, with where it comes from. */
export default function Components() {
  const known = useQuery(components());
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble whole error={known.error} />;
  return (
    <>
      <title>Components · Settings · Paseo</title>
      <Sheet
        lead
        title="Components"
        about={
          <>
            Where each comes from, what is opened to it, and who may be told of it. What is out of use is among{" "}
            <Link to="/settings/retired">what is retired</Link>.
          </>
        }
      >
        {known.data.length === 0 && <None>None yet. Bring in the first one: point at its repository.</None>}
        {known.data.length > 0 && (
          <Narrowed
            of={known.data}
            what="components"
            by={(each) => [each.name, each.repository, ...Object.values(each.labels)].join(" ")}
          >
            {(shown) => (
              <Rows head={["Component", "Repository", "Trusted branches", "Labels"]}>
                {shown.map((each) => (
                  <tr key={each.name}>
                    <td>
                      <b>
                        <ToComponent name={each.name} />
                      </b>
                    </td>
                    <td className="max-w-[320px] truncate" title={each.repository}>
                      {each.repository ? <code>{each.repository.split("/").at(-1)}</code> : "none: it is uploaded"}
                    </td>
                    <td>{each.trusted.join(", ") || "none"}</td>
                    <td>
                      {Object.entries(each.labels)
                        .map(([label, value]) => `${label} ${value}`)
                        .join(", ")}
                    </td>
                  </tr>
                ))}
              </Rows>
            )}
          </Narrowed>
        )}
      </Sheet>
    </>
  );
}
