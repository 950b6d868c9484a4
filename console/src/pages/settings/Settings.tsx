import { NavLink, Outlet } from "react-router";
import { useMay } from "../../api/may";

const ROOM: [string, [string, string][]][] = [
  ["You", [["yours", "Password and tokens"]]],
  [
    "What is deployed",
    [
      ["components", "Components"],
      ["values", "Variables and secrets"],
      ["previews", "Previews"],
    ],
  ],
  [
    "Where",
    [
      ["environments", "Environments"],
      ["agents", "Agents"],
      ["hosts", "Hosts"],
    ],
  ],
  [
    "Who",
    [
      ["accounts", "Accounts"],
      ["groups", "Groups"],
    ],
  ],
  [
    "Beyond",
    [
      ["receivers", "Receivers of events"],
      ["service", "The service"],
      ["retired", "Retired"],
    ],
  ],
];

const FRAME =
  "grid grid-cols-[200px_minmax(0,1fr)] items-start gap-8 pt-6 " + "max-[900px]:grid-cols-1 max-[900px]:gap-4";
const LIST =
  "sticky top-4 border-r border-line pr-4 max-[900px]:static max-[900px]:flex max-[900px]:flex-wrap " +
  "max-[900px]:border-r-0 max-[900px]:border-b max-[900px]:pr-0 max-[900px]:pb-2";
const WORD =
  "block rounded-[4px] px-2 py-1 text-[14px] no-underline text-ink-2 hover:text-ink " +
  "aria-[current=page]:bg-surface aria-[current=page]:font-semibold aria-[current=page]:text-ink";

/** Of what somebody has to be allowed one for a page to show them anything. */
const NEEDED: Record<string, string[]> = {
  yours: [],
  accounts: ["MANAGE_ACCOUNTS", "VERIFY_AUDIT"],
  groups: ["MANAGE_ACCOUNTS", "VERIFY_AUDIT"],
  receivers: ["TELL_OTHERS"],
};

/** Everything that is set, in one room: a list of words at the side, what is set beside it. */
export default function Settings() {
  const may = useMay();
  const shown = ([path]: [string, string]) => {
    const needed = NEEDED[path] ?? ["LOOK"];
    return needed.length === 0 || needed.some((action) => may(action));
  };
  const room = ROOM.map(([part, pages]) => [part, pages.filter(shown)] as const).filter(
    ([, pages]) => pages.length > 0,
  );
  return (
    <div className={FRAME}>
      <nav aria-label="Settings" className={LIST}>
        {room.map(([part, pages]) => (
          <div key={part} className="mb-3 max-[900px]:contents">
            <span className="block px-2 pb-1 text-[12px] text-ink-3 max-[900px]:sr-only">{part}</span>
            {pages.map(([path, word]) => (
              <NavLink key={path} to={`/settings/${path}`} className={WORD}>
                {word}
              </NavLink>
            ))}
          </div>
        ))}
      </nav>
      <div className="min-w-0">
        <Outlet />
      </div>
    </div>
  );
}
