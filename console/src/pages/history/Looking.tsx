import { Link } from "react-router";

const PAGES = {
  History: "/history",
  Pace: "/pace",
  "Audit trail": "/audit",
  "What is this file?": "/origins",
  "Who has this part?": "/packages",
};

/** The pages that look back, which lead to each other. */
export const Looking = ({ but }: { but: keyof typeof PAGES }) => (
  <>
    {Object.entries(PAGES)
      .filter(([name]) => name !== but)
      .map(([name, path]) => (
        <Link key={name} className="mr-3" to={path}>
          {name}
        </Link>
      ))}
  </>
);
