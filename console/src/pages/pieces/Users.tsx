import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Wide } from "../../design/Wide";

type User = Schemas["UserView"];

const WORDS: Record<User["standing"], string> = {
  current: "The newest",
  alike: "An older version that says the same",
  behind: "Its next run takes another that says something else",
  "held-back": "Kept from the newest by what it asks for",
  broken: "Its next run is refused",
};

const TONES: Record<User["standing"], string> = {
  current: "",
  alike: "",
  behind: "warn",
  "held-back": "warn",
  broken: "bad",
};

/** Who uses the pieces, in which version: what differs from the newest comes first. */
export function Users({ users, newest }: { users: User[]; newest: string | undefined }) {
  const order: User["standing"][] = ["broken", "behind", "held-back", "alike", "current"];
  const sorted = [...users].sort((one, two) => order.indexOf(one.standing) - order.indexOf(two.standing));
  const all = new Set(users.map((user) => user.component)).size;
  const behind = new Set(users.filter((user) => TONES[user.standing] !== "").map((user) => user.component)).size;
  return (
    <section className="sheet p-5" aria-label="Who uses them">
      <div className="flex items-baseline gap-3">
        <h2 className="m-0">Who uses them</h2>
        <span className="text-ink-2">
          {users.length === 0
            ? "Nobody yet: open this component to another, and let its pipeline file be like a piece."
            : behind === 0
              ? `All have what ${newest ?? "the newest"} says.`
              : `${behind} of ${all} have not what ${newest ?? "the newest"} says.`}
        </span>
      </div>
      {users.length > 0 && (
        <Wide label="Who uses it">
          <table className="mt-3 w-full">
            <thead>
              <tr>
                <th>Component</th>
                <th>Piece</th>
                <th>Asks for</th>
                <th>Has</th>
                <th>Next run</th>
                <th aria-label="How that stands" />
              </tr>
            </thead>
            <tbody>
              {sorted.map((user) => (
                <tr key={`${user.component} ${user.piece} ${user.at} ${user.wanted}`}>
                  <td>
                    <Link to={`/components/${user.component}/pipeline`}>{user.component}</Link>
                  </td>
                  <td>
                    {user.piece}
                    <span className="text-ink-2">{user.at && ` in ${user.at}`}</span>
                  </td>
                  <td>
                    <code>{user.wanted}</code>
                  </td>
                  <td title={user.digest && `SHA-256 ${user.digest}`}>{user.version ?? "none"}</td>
                  <td>{user.next ?? "none"}</td>
                  <td className={TONES[user.standing]}>
                    {WORDS[user.standing]}
                    {user.why && `: ${user.why}`}
                    {user.through && <span className="text-ink-2">, through {user.through}</span>}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </section>
  );
}
